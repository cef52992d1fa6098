import { useState } from "react";
import type { Schemas } from "../../data/client";
import { Button, MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { number } from "../../parts/format";
import * as S from "./Learn.styles";

export type Unknown = { file: File; why: string; found: Schemas["ResultHeadings"] };
type Props = {
  unknown: Unknown;
  /** Each as field and column. */
  onRead: (file: File, columns: string[]) => void;
  onAway: () => void;
};

const none = "none";

/** A file whose headings don't tell: the planner says which column holds what. */
export function Assign({ unknown: { file, why, found }, onRead, onAway }: Props) {
  const [columns, setColumns] = useState<Record<string, string>>(() =>
    Object.fromEntries(Object.entries(found.columns).map(([field, at]) => [field, String(at)])),
  );
  const options = [
    { id: none, name: "no column" },
    ...found.headings.map((heading, at) => ({
      id: String(at),
      name: heading || `column ${number(at + 1)}`,
    })),
  ];
  const said = Object.entries(columns).filter(([, at]) => at !== none);
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
      <S.Line data-flat>
        <MainButton
          isDisabled={said.length === 0}
          onPress={() =>
            onRead(
              file,
              said.map(([field, at]) => `${field}:${at}`),
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
