import { useState } from "react";
import styled from "styled-components";
import { ink } from "../../../../look/tokens";
import { ListAway } from "../../../../parts/TakeAway";
import { number } from "../../../../parts/format";
import type { Rivals } from "./rows";

type Props = { shared: Rivals["shared"]; of: number };

/** How many keywords any two both buy, this plan's kept ones among them. */
export function Shared({ shared, of }: Props) {
  const [at, setAt] = useState<[number, number] | null>(null);
  const names = ["this plan", ...shared.rivals];
  return (
    <Box aria-label="Keywords that two both buy">
      <Head>
        <h3>Keywords that two both buy</h3>
        <ListAway
          label="Keywords that two both buy"
          count={names.length}
          shown={() => ({
            heads: ["buys", ...names],
            columns: [names, ...names.map((_, c) => shared.counts.map((row) => row[c] ?? 0))],
          })}
        />
      </Head>
      <Matrix>
        <thead>
          <tr>
            <td />
            {names.map((name, c) => (
              <th key={name} scope="col" data-on={at?.[1] === c || undefined}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody onMouseLeave={() => setAt(null)}>
          {names.map((name, r) => (
            <tr key={name}>
              <th scope="row" data-on={at?.[0] === r || undefined}>
                {name}
              </th>
              {names.map((other, c) => (
                <td
                  key={other}
                  data-own={r === c || undefined}
                  onMouseEnter={() => setAt([r, c])}
                  style={{ background: r === c ? undefined : washOf(shared.counts, r, c) }}
                >
                  {number(shared.counts[r]?.[c])}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Matrix>
      <Note>
        Across a row: how many of its keywords each other buys too; on the diagonal all of its own.
        {shared.rivals.length < of &&
          ` The ${shared.rivals.length} with most keywords of ${number(of)} rivals.`}
      </Note>
    </Box>
  );
}

/** The larger the part of a row's own keywords, the deeper the wash; the figure says it. */
function washOf(counts: number[][], row: number, column: number): string {
  const share = (counts[row]?.[column] ?? 0) / Math.max(counts[row]?.[row] ?? 0, 1);
  return `color-mix(in srgb, ${ink.petalWash} ${Math.round(Math.min(share, 1) * 100)}%, transparent)`;
}

const Box = styled.section`
  flex: none;
  padding: 0 20px 10px;
  overflow-x: auto;
`;

const Head = styled.div`
  display: flex;
  align-items: baseline;
  gap: 8px;
  h3 {
    font-size: 16px;
  }
`;

const Matrix = styled.table`
  border-collapse: collapse;
  font-size: 13px;
  margin: 4px 0;
  th {
    font-weight: 500;
    font-size: 12px;
    color: ${ink.ink2};
    text-align: left;
    padding: 3px 10px 3px 0;
    max-width: 150px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  thead th {
    text-align: right;
    max-width: 110px;
    padding: 3px 8px;
  }
  th[data-on] {
    color: ${ink.petalDeep};
  }
  tbody td {
    text-align: right;
    padding: 3px 8px;
    min-width: 46px;
    border-top: 1px solid ${ink.rule};
    font-variant-numeric: tabular-nums;
  }
  td[data-own] {
    color: ${ink.ink2};
    font-style: italic;
  }
`;

const Note = styled.p`
  font-size: 12px;
  color: ${ink.ink2};
`;
