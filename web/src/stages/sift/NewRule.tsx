import { useState } from "react";
import { type Schemas } from "../../data/client";
import { useSaying } from "../../data/saying";
import { Button, TextButton } from "../../parts/Button";
import { Field } from "../../parts/Sheet";
import { A_NUMBER, parsed, quoted } from "../../parts/format";
import * as S from "./Sift.styles";

export type When = Required<Schemas["WhenValues"]>;
export type Rule = Required<Schemas["HouseRuleValues"]> & { when: When[] };

const fields: { id: string; name: string; values?: string[]; figure?: boolean }[] = [
  { id: "standing", name: "standing", values: ["beyond", "stretch", "in_reach", "unknown"] },
  { id: "intent", name: "intent", values: ["job", "learn", "firm", "compare", "buy", "unknown"] },
  { id: "warning", name: "holds a warning word", values: ["yes", "no"] },
  { id: "thin", name: "long tail", values: ["yes", "no"] },
  { id: "text", name: "holds the words" },
  { id: "origin", name: "comes from" },
  { id: "price", name: "median price", figure: true },
  { id: "searches", name: "searches a month", figure: true },
  { id: "words", name: "number of words", figure: true },
  { id: "customers", name: "customers a month", figure: true },
];

/** A condition as it reads. */
export function whenWords({ field, value, least, most }: When): string {
  const name = fields.find((one) => one.id === field)?.name ?? field;
  if (least != null && most != null) return `${name} ${least} to ${most}`;
  if (least != null) return `${name} ${least} or more`;
  if (most != null) return `${name} up to ${most}`;
  return `${name} ${value.replace("_", " ")}`;
}

/** A condition as it is typed: its ends are read when it is taken. */
type Typed = { field: string; value: string; least: string; most: string };

const typedOf = (field: (typeof fields)[number]): Typed => ({
  field: field.id,
  value: field.values?.[0] ?? "",
  least: "",
  most: "",
});

/** What was typed as a condition, or why it is none. */
function read(typed: Typed): When | string {
  const { name, figure } = fields.find((one) => one.id === typed.field)!;
  const { field, value } = typed;
  if (!figure)
    return value.trim() ? { field, value, least: null, most: null } : `${name}: expected words.`;
  const ends = { least: parsed(typed.least), most: parsed(typed.most) };
  for (const end of ["least", "most"] as const) {
    const text = typed[end].trim();
    if (text && ends[end] === null)
      return `${name}, ${end === "least" ? "from" : "to"}: expected ${A_NUMBER}, got ${quoted(text)}.`;
  }
  if (ends.least === null && ends.most === null)
    return `${name}: expected ${A_NUMBER} to begin from or to go up to.`;
  return { field, value: "", ...ends };
}

type Props = { onRule: (rule: Rule) => Promise<boolean> };

/** A rule in the making: its conditions one by one, then the call. */
export function NewRule({ onRule }: Props) {
  const { complain } = useSaying();
  const [when, setWhen] = useState<When[]>([]);
  const [one, setOne] = useState<Typed>(typedOf(fields[0]!));
  const [call, setCall] = useState<Rule["call"]>("drop");
  const [reason, setReason] = useState("");
  const take = (then: (all: When[]) => void) => {
    const taken = read(one);
    if (typeof taken === "string") complain(taken);
    else then([...when, taken]);
  };
  const again = () => setOne(typedOf(fields.find((field) => field.id === one.field)!));
  const add = () =>
    take((all) => {
      void onRule({ when: all, call, reason }).then((took) => {
        if (!took) return;
        setWhen([]);
        again();
      });
    });
  const another = () =>
    take((all) => {
      setWhen(all);
      again();
    });
  return (
    <S.Fields aria-label="A new rule" role="group">
      {when.length > 0 && <p>{when.map(whenWords).join(" and ")} and …</p>}
      <Condition one={one} onOne={setOne} />
      <Field>
        then
        <select
          value={call}
          onChange={(event) => setCall(event.currentTarget.value as Rule["call"])}
        >
          {["keep", "hold", "drop", "block"].map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </Field>
      <Field>
        reason
        <input value={reason} onChange={(event) => setReason(event.currentTarget.value)} />
      </Field>
      <S.Line2>
        <TextButton onPress={another}>and another condition</TextButton>
        <Button onPress={add}>Add this rule</Button>
      </S.Line2>
    </S.Fields>
  );
}

function Condition({ one, onOne }: { one: Typed; onOne: (one: Typed) => void }) {
  const about = fields.find((field) => field.id === one.field)!;
  const text = (name: "least" | "most" | "value", label: string) => (
    <Field>
      {label}
      <input
        value={one[name]}
        {...(about.figure && { size: 7, inputMode: "decimal" as const })}
        onChange={(event) => onOne({ ...one, [name]: event.currentTarget.value })}
      />
    </Field>
  );
  return (
    <>
      <Field>
        what
        <select
          value={one.field}
          onChange={(event) =>
            onOne(typedOf(fields.find((field) => field.id === event.currentTarget.value)!))
          }
        >
          {fields.map((field) => (
            <option key={field.id} value={field.id}>
              {field.name}
            </option>
          ))}
        </select>
      </Field>
      {about.values && (
        <Field>
          is
          <select
            value={one.value}
            onChange={(event) => onOne({ ...one, value: event.currentTarget.value })}
          >
            {about.values.map((value) => (
              <option key={value} value={value}>
                {value.replace("_", " ")}
              </option>
            ))}
          </select>
        </Field>
      )}
      {about.figure && text("least", "from")}
      {about.figure && text("most", "to")}
      {!about.values && !about.figure && text("value", "which")}
    </>
  );
}
