import { useState } from "react";
import { type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Field, Foot, Sheet } from "../../parts/Sheet";
import { number, parsed, plural } from "../../parts/format";
import * as S from "./Sift.styles";

type When = Required<Schemas["WhenValues"]>;
type Rule = Required<Schemas["HouseRuleValues"]> & { when: When[] };
type Props = { open: boolean; onOpen: (open: boolean) => void };

/** House rules: what they would do is shown before they do it; calls by hand are never touched. */
export function RulesSheet({ open, onOpen }: Props) {
  return (
    <Sheet title="House rules" open={open} onOpen={onOpen} width={720}>
      <Rules onDone={() => onOpen(false)} />
    </Sheet>
  );
}

function Rules({ onDone }: { onDone: () => void }) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const rules = summary.own.house_rules as Rule[];
  const preview = usePlanQuery("/sift/rules");
  const keep = (next: Rule[]) => send("patch", "/own", { house_rules: next });
  const apply = () =>
    void send("post", "/sift/rules/apply", undefined).then((took) => took && onDone());
  const work = preview.data?.rules ?? [];
  const total = work.reduce((sum, one) => sum + one.ids.length, 0);
  return (
    <>
      <p>A keyword takes the first rule that fits. Calls made by hand stay as they are.</p>
      <S.Rules>
        {rules.map((rule, at) => (
          <li key={at}>
            <div>
              <b>{rule.when.map(whenWords).join(" and ")}</b> → {rule.call}
              {rule.reason && `, “${rule.reason}”`}
              <p>{workWords(work[at])}</p>
            </div>
            <S.Away
              aria-label={`Take rule ${at + 1} out`}
              onPress={() => void keep(rules.filter((_, other) => other !== at))}
            >
              ×
            </S.Away>
          </li>
        ))}
        {rules.length === 0 && <li>No house rules yet.</li>}
      </S.Rules>
      <NewRule onRule={(rule) => keep([...rules, rule])} />
      <Foot>
        <Button onPress={onDone}>Close</Button>
        <MainButton isDisabled={total === 0} onPress={apply}>
          Call {plural(total, "keyword")} by these rules
        </MainButton>
      </Foot>
    </>
  );
}

function workWords(work: Schemas["RuleWorkItem"] | undefined): string {
  if (!work) return "…";
  const named = work.texts.slice(0, 4).join(", ");
  const more = work.ids.length > 4 ? ", …" : "";
  return [
    `${plural(work.ids.length, "keyword")}${named && `: ${named}${more}`}`,
    work.words.length > 0 && `negatives: ${work.words.join(", ")}`,
    work.by_hand > 0 && `${number(work.by_hand)} called by hand stay`,
  ]
    .filter(Boolean)
    .join("; ");
}

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

function whenWords({ field, value, least, most }: When): string {
  const name = fields.find((one) => one.id === field)?.name ?? field;
  if (least != null && most != null) return `${name} ${least} to ${most}`;
  if (least != null) return `${name} ${least} or more`;
  if (most != null) return `${name} up to ${most}`;
  return `${name} ${value.replace("_", " ")}`;
}

const blank: When = { field: "standing", value: "beyond", least: null, most: null };

function NewRule({ onRule }: { onRule: (rule: Rule) => Promise<boolean> }) {
  const [when, setWhen] = useState<When[]>([]);
  const [one, setOne] = useState<When>(blank);
  const [call, setCall] = useState<Rule["call"]>("drop");
  const [reason, setReason] = useState("");
  const about = fields.find((field) => field.id === one.field)!;
  const end = (name: "least" | "most", label: string) => (
    <Field>
      {label}
      <input
        size={7}
        inputMode="decimal"
        onChange={(event) => setOne({ ...one, [name]: parsed(event.currentTarget.value) })}
      />
    </Field>
  );
  const add = () =>
    void onRule({ when: [...when, one], call, reason }).then((took) => {
      if (took) setWhen([]);
    });
  return (
    <S.Fields aria-label="A new rule" role="group">
      {when.length > 0 && <p>{when.map(whenWords).join(" and ")} and …</p>}
      <Field>
        what
        <select
          value={one.field}
          onChange={(event) => {
            const next = fields.find((field) => field.id === event.currentTarget.value)!;
            setOne({ field: next.id, value: next.values?.[0] ?? "", least: null, most: null });
          }}
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
            onChange={(event) => setOne({ ...one, value: event.currentTarget.value })}
          >
            {about.values.map((value) => (
              <option key={value} value={value}>
                {value.replace("_", " ")}
              </option>
            ))}
          </select>
        </Field>
      )}
      {about.figure && end("least", "from")}
      {about.figure && end("most", "to")}
      {!about.values && !about.figure && (
        <Field>
          which
          <input
            value={one.value}
            onChange={(event) => setOne({ ...one, value: event.currentTarget.value })}
          />
        </Field>
      )}
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
        <TextButton onPress={() => setWhen([...when, one])}>and another condition</TextButton>
        <Button onPress={add}>Add this rule</Button>
      </S.Line2>
    </S.Fields>
  );
}
