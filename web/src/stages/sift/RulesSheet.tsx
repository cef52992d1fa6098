import { type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Button, MainButton } from "../../parts/Button";
import { Foot, Sheet } from "../../parts/Sheet";
import { number, plural } from "../../parts/format";
import { NewRule, whenWords, type Rule } from "./NewRule";
import * as S from "./Sift.styles";

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
