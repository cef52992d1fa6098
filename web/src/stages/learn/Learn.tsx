import { useState } from "react";
import { useViewKeys } from "../../app/useViewKeys";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Views } from "../../parts/Views";
import { number } from "../../parts/format";
import { Corrections } from "./Corrections";
import { Keywords } from "./Keywords";
import { Month } from "./Month";
import { ResultsIn } from "./ResultsIn";
import { Terms } from "./Terms";
import { Waits } from "./Waits";
import * as S from "./Learn.styles";

type View = "waits" | "month" | "terms" | "keywords" | "corrections" | "results";
const order: readonly View[] = ["waits", "month", "terms", "keywords", "corrections", "results"];

/** What really happened, what to do now, and a better next month. */
export function Learn() {
  const found = usePlanQuery("/learn");
  const [chosen, setChosen] = useState<View>("waits");
  useViewKeys(order.length, (at) => setChosen(order[at]!));
  const view = found.data;
  if (found.isError) return <S.Quiet role="alert">The results could not be read.</S.Quiet>;
  if (!view) return <S.Quiet>Holding the results against the plan …</S.Quiet>;
  const empty = view.since === null;
  const shown = empty ? "results" : chosen;
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
              { id: "results", name: "Results in" },
            ]}
            view={shown}
            onView={setChosen}
          />
        )}
        {view.since && view.until && (
          <small>
            {day(view.since)} to {day(view.until)}, as reported by {day(view.as_of!)}
          </small>
        )}
      </S.Head>
      {shown === "waits" && <Waits view={view} />}
      {shown === "month" && <Month view={view} />}
      {shown === "terms" && <Terms view={view} />}
      {shown === "keywords" && <Keywords view={view} />}
      {shown === "corrections" && <Corrections view={view} />}
      {shown === "results" && <ResultsIn view={view} />}
    </S.Room>
  );
}

const day = (iso: string): string => new Date(iso).toLocaleDateString();
