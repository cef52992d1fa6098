import { useState } from "react";
import type { Schemas } from "../../data/client";
import { Button, MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Day } from "../../parts/Day";
import { number } from "../../parts/format";
import * as S from "./Learn.styles";

/** First and last day, ISO 8601. */
export type Days = { since: string; until: string };
export type Unknown = { file: File; why: string; found: Schemas["ResultHeadings"] };
type Props = {
  unknown: Unknown;
  /** Each column as field and number; days where no column says them. */
  onRead: (file: File, columns: string[], days: Days | null) => void;
  onAway: () => void;
};

const none = "none";

/** A file whose headings don't tell: the planner says which column holds what. */
export function Assign({ unknown: { file, why, found }, onRead, onAway }: Props) {
  const [columns, setColumns] = useState<Record<string, string>>(() =>
    Object.fromEntries(Object.entries(found.columns).map(([field, at]) => [field, String(at)])),
  );
  const [days, setDays] = useState<Days>({ since: found.since ?? "", until: found.until ?? "" });
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
          No column says the days: all rows are from{" "}
          <Day
            label="First day of all rows"
            value={days.since}
            onCommit={(since) => Promise.resolve((setDays({ ...days, since }), true))}
          />{" "}
          to{" "}
          <Day
            label="Last day of all rows"
            value={days.until}
            onCommit={(until) => Promise.resolve((setDays({ ...days, until }), true))}
          />
        </S.Days>
      )}
      <S.Line data-flat>
        <MainButton
          isDisabled={said.length === 0 || !(dated || (days.since && days.until))}
          onPress={() =>
            onRead(
              file,
              said.map(([field, at]) => `${field}:${at}`),
              dated ? null : days,
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
