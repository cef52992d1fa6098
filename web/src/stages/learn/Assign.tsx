import { useState } from "react";
import type { Schemas } from "../../data/client";
import { Button, MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { money, number } from "../../parts/format";
import * as S from "./Learn.styles";
import { useTyped, useTypedDay } from "./useTyped";

/** What no column says: first and last day, ISO 8601; the money of all rows together. */
export type Beside = { since?: string; until?: string; spent?: number };
export type Unknown = {
  file: File;
  why: string;
  spent: number | null;
  found: Schemas["ResultHeadings"];
};
type Props = {
  unknown: Unknown;
  /** Each column as field and number. */
  onRead: (file: File, columns: string[], beside: Beside) => void;
  onAway: () => void;
};

const none = "none";
/** Whose clicks are evidence, and so need a price. */
const judged = ["term", "keyword", "group", "campaign"];

const both = (since: string | null, until: string | null) =>
  since === null || until === null ? null : { since, until };

/** A file whose headings don't tell: the planner says which column holds what. */
export function Assign({ unknown: { file, why, found, ...before }, onRead, onAway }: Props) {
  const [columns, setColumns] = useState<Record<string, string>>(() =>
    Object.fromEntries(Object.entries(found.columns).map(([field, at]) => [field, String(at)])),
  );
  const since = useTypedDay("First day of all rows", found.since ?? null);
  const until = useTypedDay("Last day of all rows", found.until ?? null);
  const spent = useTyped("Money of all rows", "how much", money, before.spent);
  const options = [
    { id: none, name: "no column" },
    ...found.headings.map((heading, at) => ({
      id: String(at),
      name: heading || `column ${number(at + 1)}`,
    })),
  ];
  const said = Object.entries(columns).filter(([, at]) => at !== none);
  const fields = said.map(([field]) => field);
  const dated = fields.includes("day") || (fields.includes("since") && fields.includes("until"));
  const priced =
    fields.includes("cost") ||
    fields.includes("cost_per_click") ||
    !judged.some((field) => fields.includes(field));
  const days = dated ? {} : both(since.value, until.value);
  const sum = priced ? {} : spent.value === null ? null : { spent: spent.value };
  const beside = days && sum && { ...days, ...sum };
  return (
    <section aria-label="Which columns hold what">
      {why && <p role="alert">{why}</p>}
      <p>
        Say which columns of <b>{file.name}</b> hold what; the next file with these headings is read
        the same way.
      </p>
      <S.Assigned>
        {Object.entries(found.fields).map(([field, name]) => (
          <span key={field}>
            {name} in{" "}
            <Choice
              label={`Column of ${name}`}
              inline
              value={columns[field] ?? none}
              options={options}
              onChange={(at) => setColumns((before) => ({ ...before, [field]: at }))}
            />
          </span>
        ))}
      </S.Assigned>
      {!dated && (
        <S.Days>
          No column says the days: all rows are from {since.blank} to {until.blank}
        </S.Days>
      )}
      {!priced && (
        <S.Days>
          No column says what was spent: all rows together cost {spent.blank}, an equal part for
          each click.
        </S.Days>
      )}
      <S.Line data-flat>
        <MainButton
          isDisabled={beside === null || said.length === 0}
          onPress={() =>
            beside &&
            onRead(
              file,
              said.map(([field, at]) => `${field}:${at}`),
              beside,
            )
          }
        >
          Read it so
        </MainButton>
        <Button onPress={onAway}>Leave it out</Button>
      </S.Line>
    </section>
  );
}
