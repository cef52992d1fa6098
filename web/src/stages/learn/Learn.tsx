import { useState } from "react";
import { useViewKeys } from "../../app/useViewKeys";
import { Link } from "react-router";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Button } from "../../parts/Button";
import { NotYet } from "../../parts/NotYet";
import { Views } from "../../parts/Views";
import { daySaid } from "../../parts/days";
import { number } from "../../parts/format";
import { Corrections } from "./Corrections";
import { Keywords } from "./Keywords";
import { LookedOver } from "./LookedOver";
import { Month } from "./month";
import { ResultsIn } from "./ResultsIn";
import { Terms } from "./Terms";
import { Waits } from "./Waits";
import * as S from "./Learn.styles";
import type { LearnView } from "./view";

type View = "waits" | "month" | "terms" | "keywords" | "corrections" | "account" | "results";
const order: readonly View[] = [
  "waits",
  "month",
  "terms",
  "keywords",
  "corrections",
  "account",
  "results",
];

/** What really happened, what to do now, and a better next month. */
export function Learn() {
  const found = usePlanQuery("/learn");
  const [chosen, setChosen] = useState<View | null>(null);
  useViewKeys(order.length, (at) => setChosen(order[at]!));
  const view = found.data;
  if (!view)
    return (
      <S.Quiet>
        <NotYet of={found}>Holding the results against the plan …</NotYet>
      </S.Quiet>
    );
  const empty = view.since === null;
  const shown = empty ? "results" : (chosen ?? "waits");
  const open = view.terms.filter((term) => !term.decided && term.suggestion !== "wait").length;
  return (
    <S.Room>
      <S.Head>
        <h1>Learn</h1>
        {!empty && (
          <Views
            label="What is shown"
            views={[
              { id: "waits", name: `What waits ${number(view.waiting.length)}` },
              { id: "month", name: "The month" },
              { id: "terms", name: `Terms ${number(open)}` },
              { id: "keywords", name: "Keywords" },
              { id: "corrections", name: "Corrections" },
              { id: "account", name: "Looked over" },
              { id: "results", name: "Results in" },
            ]}
            view={shown}
            onView={setChosen}
          />
        )}
        {view.since && view.until && (
          <small>
            {daySaid(view.since)} to {daySaid(view.until)}, as reported by {daySaid(view.as_of!)}
            {view.evidence_since !== view.since &&
              `; terms, keywords and corrections by all days since ${daySaid(view.evidence_since!)}`}
          </small>
        )}
      </S.Head>
      {view.closed_as !== null && <Closed view={view} />}
      {shown === "waits" && <Waits view={view} onClose={() => setChosen("corrections")} />}
      {shown === "month" && <Month view={view} />}
      {shown === "terms" && <Terms view={view} />}
      {shown === "keywords" && <Keywords view={view} />}
      {shown === "corrections" && <Corrections view={view} />}
      {shown === "account" && <LookedOver />}
      {shown === "results" && <ResultsIn view={view} onSaid={() => setChosen("results")} />}
    </S.Room>
  );
}

/** That this month is closed, with the way on and the way back. */
function Closed({ view }: { view: LearnView }) {
  const { id } = usePlan();
  const { complain, say } = useSaying();
  const reopen = async () => {
    try {
      const path = { params: { path: { plan_id: id } } };
      const found = await taken<Schemas["Reopened"]>(
        client.POST("/api/plans/{plan_id}/learn/reopen", path),
      );
      say(
        found.removed
          ? `This month is open again; ${found.label} went away: nothing was done in it`
          : "This month is open again; its next month stays as a version",
      );
    } catch (error) {
      complain(error);
    }
  };
  return (
    <S.Banner>
      This month is closed and stands as it was.
      {view.next_label !== null && (
        <Link to={`/plan/${view.closed_as}/learn`}>Go on with {view.next_label}</Link>
      )}
      <Button onPress={() => void reopen()}>Open it again</Button>
    </S.Banner>
  );
}
