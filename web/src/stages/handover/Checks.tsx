import { useState } from "react";
import { Link } from "react-router";
import type { Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { A_NUMBER, number, parsed } from "../../parts/format";
import { ItemsAway } from "../../parts/TakeAway";
import { useActions } from "../../app/actions";
import { Holidays } from "./Holidays";
import * as S from "./HandOver.styles";

type Check = Schemas["CheckItem"];
type Props = { checks: Check[] | undefined };

/** What the checks go by that the plan says nowhere else. */
function Told() {
  const { summary, changeBrief } = usePlan();
  const { values } = summary.brief;
  return (
    <S.Told>
      Customers are counted by{" "}
      <Blank
        label="How customers are counted"
        value={values.counted_by}
        placeholder="nobody said"
        onCommit={(counted_by) => changeBrief({ counted_by })}
      />
      ; page addresses carry the tag{" "}
      <Blank
        label="Tag of page addresses"
        value={values.visit_tag}
        placeholder="none"
        onCommit={(visit_tag) => changeBrief({ visit_tag })}
      />
      ; readings are stale after{" "}
      <Blank
        label="Age of stale readings, days"
        value={number(values.stale_days)}
        onCommit={(text) => {
          const days = parsed(text);
          return days === null ? A_NUMBER : changeBrief({ stale_days: Math.round(days) });
        }}
      />{" "}
      days; a start before a week-end{" "}
      <TextButton onPress={() => void changeBrief({ tell_weekend: !values.tell_weekend })}>
        {values.tell_weekend ? "is told" : "is not told"}
      </TextButton>
      ; <Holidays />
    </S.Told>
  );
}

/** What to look at before the plan leaves, most harmful first, each with its mend or its place. */
export function Checks({ checks }: Props) {
  const { id } = usePlan();
  const send = usePlanChange();
  const [open, setOpen] = useState(false);
  const must = checks?.filter((check) => check.must) ?? [];
  const may = checks?.filter((check) => !check.must) ?? [];
  const mend = (check: Check) => void send("post", "/hand-over/mend", { code: check.code });
  const first = checks?.find((check) => check.mend);
  useActions([
    {
      name: first ? `Mend: ${first.mend}` : "Nothing that one key mends",
      keys: ["m"],
      run: () => first && mend(first),
    },
  ]);
  const line = (check: Check) => (
    <li key={check.text} data-must={check.must || undefined}>
      {check.text}
      {check.names.length > 0 && <small>{check.names.join(", ")}</small>}
      <span>
        {check.mend && (
          <TextButton onPress={() => mend(check)}>
            {check.mend} {check === first && <kbd>m</kbd>}
          </TextButton>
        )}
        <Link to={`/plan/${id}/${check.stage}`} aria-label={`look: ${check.text}`}>
          look
        </Link>
      </span>
    </li>
  );
  return (
    <S.Side aria-label="Last checks">
      <h2>
        Before you send it
        <ItemsAway
          label="Before you send it"
          items={checks}
          columns={{
            check: (c) => c.text,
            "must be mended": (c) => (c.must ? "yes" : "no"),
            about: (c) => c.names.join(", "),
            stage: (c) => c.stage,
          }}
        />
      </h2>
      <S.Unfold>
        {checks && `${number(must.length)} to be mended, ${number(may.length)} to look at: `}
        <TextButton aria-expanded={open} onPress={() => setOpen(!open)}>
          {open ? "fold them away" : "show them"}
        </TextButton>
      </S.Unfold>
      <S.Folded data-open={open || undefined}>
        {checks?.length === 0 && <p>Nothing stands out.</p>}
        {must.length > 0 && (
          <>
            <h3>To be mended: the platform would refuse it, or nothing would run</h3>
            <ul>{must.map(line)}</ul>
          </>
        )}
        {may.length > 0 && (
          <>
            {must.length > 0 && <h3>May be sent as it is</h3>}
            <ul>{may.map(line)}</ul>
          </>
        )}
        <Told />
      </S.Folded>
    </S.Side>
  );
}
