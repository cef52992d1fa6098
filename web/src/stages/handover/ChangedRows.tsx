import type { Schemas } from "../../data/client";
import { number } from "../../parts/format";
import * as S from "./HandOver.styles";

export type Change = Schemas["ChangedLine"];
export type Cell = Change["row"][string];

const words = ["keyword", "negative", "spot", "headline 1", "ad group", "campaign"];

/** What a person knows a row by. */
export function named({ row, ref }: Change): string {
  const name = words.find((word) => row[word]);
  return name ? said(row[name]!) : ref;
}

export function said(value: Cell): string {
  if (value === null || value === "") return "none";
  return typeof value === "number" ? number(value, Number.isInteger(value) ? 0 : 2) : String(value);
}

type Props = { changes: readonly Change[] };

/** Rows that are not as they were, with what stood there and what stands there now. */
export function ChangedRows({ changes }: Props) {
  return (
    <S.Rows>
      <tbody>
        {changes.map((change) => (
          <tr key={`${change.sheet} ${change.ref}`} data-turn={change.turn}>
            <th scope="row">{change.turn}</th>
            <td>{change.sheet}</td>
            <td>{named(change)}</td>
            <td>
              {Object.entries(change.was).map(([name, was]) => (
                <span key={name}>
                  {name}: <s>{said(was)}</s> <b>{said(change.row[name] ?? null)}</b>
                </span>
              ))}
            </td>
          </tr>
        ))}
      </tbody>
    </S.Rows>
  );
}
