import { useState, type ReactNode } from "react";
import { ToggleButton } from "react-aria-components";
import styled from "styled-components";
import { ink } from "../look/tokens";
import type { Plain } from "./column";
import { number } from "./format";
import { ItemsAway } from "./TakeAway";

type Props<T> = {
  /** What the picture is of; names the table and the file. */
  label: string;
  items: readonly T[];
  /** The table behind the picture: a column by its head. */
  columns: Record<string, (item: T) => Plain>;
  /** What stands above the picture, at its left. */
  head?: ReactNode;
  children: ReactNode;
};

/** A picture with the figures behind it, to be read and taken away. */
export function Pictured<T>({ label, items, columns, head, children }: Props<T>) {
  const [asTable, setAsTable] = useState(false);
  return (
    <Box aria-label={label}>
      <Bar>
        <div>{head}</div>
        <Toggle isSelected={asTable} onChange={setAsTable}>
          {asTable ? "as a picture" : "as a table"}
        </Toggle>
        <ItemsAway label={label} items={items} columns={columns} />
      </Bar>
      {asTable ? <FigureTable label={label} items={items} columns={columns} /> : children}
    </Box>
  );
}

type TableProps<T> = Pick<Props<T>, "label" | "items" | "columns">;

/** Figures by row, as they are. */
export function FigureTable<T>({ label, items, columns }: TableProps<T>) {
  const heads = Object.entries(columns);
  return (
    <Scrolled tabIndex={0} role="region" aria-label={`${label}, as a table`}>
      <table>
        <thead>
          <tr>
            {heads.map(([head]) => (
              <th key={head} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {items.map((item, at) => (
            <tr key={at}>
              {heads.map(([head, of]) => {
                const value = of(item);
                return (
                  <td key={head} data-number={typeof value === "number" || undefined}>
                    {typeof value === "number"
                      ? number(value, Number.isInteger(value) ? 0 : 2)
                      : value}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </Scrolled>
  );
}

const Box = styled.section`
  position: relative;
  min-width: 0;
`;

const Bar = styled.div`
  display: flex;
  align-items: baseline;
  gap: 10px;
  min-height: 22px;
  font-size: 12px;
  color: ${ink.ink2};
  > div {
    flex: 1;
    min-width: 0;
  }
`;

const Toggle = styled(ToggleButton)`
  border: 0;
  background: none;
  padding: 0 2px;
  font-size: 12px;
  cursor: pointer;
  color: ${ink.petalDeep};
  text-decoration: underline;
  text-underline-offset: 3px;
`;

const Scrolled = styled.div`
  max-height: 300px;
  overflow: auto;
  table {
    border-collapse: collapse;
    font-variant-numeric: tabular-nums;
    font-size: 12px;
  }
  th {
    text-align: left;
    font-weight: 500;
    position: sticky;
    top: 0;
    background: ${ink.paper};
  }
  th,
  td {
    padding: 2px 14px 2px 0;
    border-bottom: 1px solid ${ink.rule};
    white-space: nowrap;
  }
  /* where there is no room a heading takes two lines before a column is out of sight */
  th {
    white-space: normal;
    vertical-align: bottom;
  }
  td[data-number] {
    text-align: right;
  }
`;
