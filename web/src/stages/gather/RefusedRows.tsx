import type { Schemas } from "../../data/client";
import { ItemsAway } from "../../parts/TakeAway";
import { plural } from "../../parts/format";
import * as S from "./Gather.styles";

type Props = { rows: Schemas["RefusedRow"][] };

/** Rows of a list that were left out, folded away. */
export function RefusedRows({ rows }: Props) {
  if (rows.length === 0) return null;
  return (
    <S.Line as="details">
      <summary>{plural(rows.length, "row")} left out</summary>
      <ItemsAway
        label="Rows left out"
        items={rows}
        columns={{
          row: (r) => r.row,
          column: (r) => r.column,
          value: (r) => r.value,
          why: (r) => r.why,
        }}
      />
      <ul>
        {rows.slice(0, 50).map((row) => (
          <li key={row.row}>
            row {row.row}, {row.column}: <S.Why>{row.why}</S.Why>
          </li>
        ))}
      </ul>
    </S.Line>
  );
}
