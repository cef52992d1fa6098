import { useState } from "react";
import { type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { useSaying } from "../../data/saying";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Field, Foot, Sheet } from "../../parts/Sheet";
import { A_NUMBER, parsed, plural, quoted } from "../../parts/format";
import * as S from "./Sift.styles";
import { useCalls, useSift } from "./useSift";

type Props = { open: boolean; onOpen: (open: boolean) => void };
type Edit = Omit<Schemas["KeywordEdit"], "ids">;

/** Why the last call was made: the planner's own quick reasons by digit, or free words. */
export function ReasonSheet({ open, onOpen }: Props) {
  return (
    <Sheet title="Why?" open={open} onOpen={onOpen} width={440}>
      <Reasons onDone={() => onOpen(false)} />
    </Sheet>
  );
}

function Reasons({ onDone }: { onDone: () => void }) {
  const { summary, sheet } = usePlan();
  const send = usePlanChange();
  const { last, rowOf } = useSift();
  const { callAs, targets } = useCalls();
  const { say } = useSaying();
  const [text, setText] = useState("");
  const quick = summary.own.quick_reasons;
  const give = (reason: string) => {
    onDone();
    const row = rowOf.get(targets[0] ?? -1);
    const call = row === undefined ? "none" : sheet.texts.call[row];
    if (call && call !== "none") void callAs(call, targets, { reason });
    else if (last) void callAs(last.call, last.ids, { reason });
    else say("A reason belongs to a call: call a keyword first.");
  };
  const keep = (reasons: string[]) => void send("patch", "/own", { quick_reasons: reasons });
  return (
    <>
      <Field>
        a digit for a quick reason, or in your own words
        <input
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
          autoFocus
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
          onKeyDown={(event) => {
            const picked = text === "" ? quick[Number(event.key) - 1] : undefined;
            if (picked !== undefined) {
              event.preventDefault();
              give(picked);
            } else if (event.key === "Enter") give(text.trim());
          }}
        />
      </Field>
      <S.Reasons>
        {quick.map((reason, at) => (
          <li key={reason}>
            <TextButton onPress={() => give(reason)}>
              <kbd>{at + 1}</kbd> {reason}
            </TextButton>
            <S.Away
              aria-label={`Forget the reason ${reason}`}
              onPress={() => keep(quick.filter((other) => other !== reason))}
            >
              ×
            </S.Away>
          </li>
        ))}
      </S.Reasons>
      <Foot>
        <TextButton
          isDisabled={!text.trim() || quick.includes(text.trim())}
          onPress={() => keep([...quick, text.trim()])}
        >
          keep as a quick reason
        </TextButton>
        <MainButton isDisabled={!text.trim()} onPress={() => give(text.trim())}>
          Give it
        </MainButton>
      </Foot>
    </>
  );
}

/** A note on the selected keywords. */
export function NoteSheet({ open, onOpen }: Props) {
  const { targets } = useCalls();
  return (
    <Sheet title={`Note on ${plural(targets.length, "keyword")}`} open={open} onOpen={onOpen}>
      <Note onDone={() => onOpen(false)} />
    </Sheet>
  );
}

function Note({ onDone }: { onDone: () => void }) {
  const { sheet } = usePlan();
  const { rowOf } = useSift();
  const { targets } = useCalls();
  const edit = useEdit(onDone);
  const [text, setText] = useState(sheet.texts.note[rowOf.get(targets[0] ?? -1) ?? -1] ?? "");
  return (
    <>
      <Field>
        note
        <textarea
          rows={4}
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just opened it
          autoFocus
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) edit({ note: text });
          }}
        />
      </Field>
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        <MainButton onPress={() => edit({ note: text })}>
          Write it down <kbd>Ctrl Enter</kbd>
        </MainButton>
      </Foot>
    </>
  );
}

function useEdit(onDone: () => void) {
  const send = usePlanChange();
  const { targets } = useCalls();
  return (body: Edit) =>
    void send("post", "/keywords/edit", { ids: targets, ...body }).then((took) => took && onDone());
}

/** Several keywords changed at once. */
export function EditSheet({ open, onOpen }: Props) {
  const { targets } = useCalls();
  return (
    <Sheet title={`Change ${plural(targets.length, "keyword")}`} open={open} onOpen={onOpen}>
      <Edits onDone={() => onOpen(false)} />
    </Sheet>
  );
}

const intents = ["buy", "compare", "learn", "firm", "job", "unknown"];
const matches = ["exact", "phrase", "broad"];

function Edits({ onDone }: { onDone: () => void }) {
  const { summary, sheet } = usePlan();
  const { complain } = useSaying();
  const { targets } = useCalls();
  const edit = useEdit(onDone);
  const [typed, setTyped] = useState<Record<string, string>>({});
  const { currency, offer_name, more_offers } = summary.brief.values;
  const figures: Record<string, string> = {
    volume: "searches a month, your own figure",
    cpc_low: `low price, ${currency} a click`,
    cpc_high: `high price, ${currency} a click`,
  };
  const offers = [offer_name, ...more_offers.map((offer) => offer.name)];
  const set = (name: string) => (value: string) => setTyped({ ...typed, [name]: value });
  const save = () => {
    const body: Record<string, string | number> = {};
    for (const [name, value] of Object.entries(typed)) {
      if (!value.trim()) continue;
      const read = name in figures ? parsed(value) : value.trim();
      if (read === null)
        return complain(`${figures[name]}: expected ${A_NUMBER}, got ${quoted(value)}.`);
      body[name] = read;
    }
    edit(body as Edit);
  };
  const pick = (name: string, label: string, options: string[]) => (
    <Field>
      {label}
      <select value={typed[name] ?? ""} onChange={(event) => set(name)(event.currentTarget.value)}>
        <option value="">as it is</option>
        {options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </select>
    </Field>
  );
  const field = (name: string, label = figures[name], list?: string) => (
    <Field key={name}>
      {label}
      <input
        list={list}
        value={typed[name] ?? ""}
        placeholder="as it is"
        onChange={(event) => set(name)(event.currentTarget.value)}
      />
    </Field>
  );
  return (
    <>
      <S.Fields>
        {pick("match", "match type", matches)}
        {pick("duplicate_as", "repeat as another match type", matches)}
        {pick("intent", "intent", intents)}
        {offers.length > 1 && pick("offer", "offer", offers)}
        {field("group", "group", "groups")}
        <datalist id="groups">
          {sheet.groups.map((group) => (
            <option key={group.id} value={group.label} />
          ))}
        </datalist>
        {Object.keys(figures).map((name) => field(name))}
      </S.Fields>
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        <MainButton
          isDisabled={Object.values(typed).every((value) => !value.trim())}
          onPress={save}
        >
          {targets.length === 1 ? "Change it" : "Change them"}
        </MainButton>
      </Foot>
    </>
  );
}
