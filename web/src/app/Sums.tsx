import { useState } from "react";
import type { Schemas } from "../data/client";
import { usePlan } from "../data/plan";
import { useTry } from "../data/whatIf";
import { Blank } from "../parts/Blank";
import { A_NUMBER, count, delta, money, number, parsed, percent } from "../parts/format";
import * as S from "./Workings.styles";

type Answer = Schemas["Workings"];
type Line = Schemas["WorkingLine"];

type SumsProps = { answer: Answer };

/** The arithmetic of an answer: short sums with units and sources. */
export function Sums({ answer }: SumsProps) {
  return (
    <div>
      <h2>{answer.title}</h2>
      {answer.about && <S.About>{answer.about}</S.About>}
      {answer.notes.map((note) => (
        <S.Note key={note}>{note}</S.Note>
      ))}
      {answer.sections.map((section) => (
        <S.Sum key={section.title}>
          <h3>{section.title}</h3>
          <dl>
            {section.lines.map((line, at) => (
              <S.Row key={at} data-result={line.result || undefined}>
                <dt>
                  {line.label}
                  {line.formula && <small>{line.formula}</small>}
                </dt>
                <dd>
                  <Figure line={line} />
                </dd>
              </S.Row>
            ))}
          </dl>
        </S.Sum>
      ))}
    </div>
  );
}

type FigureProps = { line: Line };

function Figure({ line }: FigureProps) {
  if (line.text) return <span>{line.text}</span>;
  if (line.assumption && line.source) return <Assumption line={line} />;
  return <span title={sourceWord(line.source)}>{said(line)}</span>;
}

/** An assumption where it acts: what another value would do is shown before it is kept. */
function Assumption({ line }: FigureProps) {
  const { summary, changeAssumption } = usePlan();
  const [draft, setDraft] = useState<number | null>(null);
  const changed = line.assumption in summary.brief.assumptions;
  const unit = line.unit === "share" ? 100 : 1;
  const read = (text: string | null) => {
    const value = text === null ? null : parsed(text);
    return value === null ? null : value / unit;
  };
  return (
    <>
      <Blank
        label={
          line.source === "assumption"
            ? `Assumption: ${line.label}`
            : `${line.label}, ${sourceWord(line.source)}`
        }
        value={said(line)}
        assumed={line.source === "assumption"}
        onCommit={(text) => {
          const value = read(text);
          return value === null ? A_NUMBER : changeAssumption(line.assumption, value);
        }}
        onDraft={(text) => setDraft(read(text))}
      />
      {changed && (
        <S.Back
          aria-label={`Put the default of ${line.label} back`}
          onPress={() => void changeAssumption(line.assumption, null)}
        >
          ↺
        </S.Back>
      )}
      {draft !== null && <Effect name={line.assumption} value={draft} />}
    </>
  );
}

/** What an assumption would do to the purse, before it is kept. */
function Effect({ name, value }: { name: string; value: number }) {
  const { purse } = usePlan().summary;
  const tried = useTry({ assumptions: { [name]: value } });
  if (!tried) return null;
  const moved = (to: number, from: number, digits: number) => delta(to - from, digits) || "±0";
  return (
    <S.Effect role="status">
      customers {moved(tried.purse.customers, purse.customers, 2)}, spend{" "}
      {moved(tried.purse.spend, purse.spend, 2)}, profit{" "}
      {moved(tried.purse.profit, purse.profit, 0)}: Enter keeps it
    </S.Effect>
  );
}

const sourceWord = (source: string) =>
  ({ brief: "from the brief", reading: "read from a source", planner: "set by hand" })[source];

function said(line: Line): string {
  if (line.value == null) return "none";
  if (line.unit === "money") return money(line.value);
  if (line.unit === "share") return percent(line.value, Math.abs(line.value) < 0.1 ? 2 : 1);
  if (line.unit === "factor" || line.unit === "log units") return number(line.value, 2);
  if (line.unit === "months" || line.unit === "weeks")
    return `${number(line.value, 1)} ${line.unit}`;
  if (Number.isInteger(line.value)) return number(line.value);
  return Math.abs(line.value) < 0.1 && line.value !== 0
    ? String(Number(line.value.toPrecision(3)))
    : count(line.value);
}
