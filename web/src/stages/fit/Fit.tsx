import { useSearchParams } from "react-router";
import { useViewKeys } from "../../app/useViewKeys";
import { usePlanQuery } from "../../data/usePlanQuery";
import { Top } from "../../parts/Screen";
import { Views } from "../../parts/Views";
import { number } from "../../parts/format";
import { BidsView } from "./bids/BidsView";
import * as S from "./Fit.styles";
import { HowSure } from "./sure/HowSure";
import { Versions } from "./versions/Versions";
import { Year } from "./year/Year";

const order = ["bids", "versions", "sure", "year"] as const;

type View = (typeof order)[number];

/** Which bids, what they bring, how sure that is, and what another choice would bring. */
export function Fit() {
  const [params, setParams] = useSearchParams();
  const asked = params.get("view") as View;
  const view = order.includes(asked) ? asked : "bids";
  const go = (next: View) => setParams(next === "bids" ? {} : { view: next }, { replace: true });
  const family = usePlanQuery("/versions").data;
  useViewKeys(order.length, (at) => go(order[at]!));
  const versions = family ? `Versions ${number(family.versions.length)}` : "Versions";
  return (
    <S.Screen>
      <Top>
        <h1>Fit</h1>
        <Views
          label="What is shown"
          views={[
            { id: "bids", name: "Bids" },
            { id: "versions", name: versions },
            { id: "sure", name: "How sure" },
            { id: "year", name: "Year" },
          ]}
          view={view}
          onView={go}
        />
      </Top>
      {view === "bids" && <BidsView />}
      {view === "versions" && family && <Versions family={family.versions} />}
      {view === "sure" && <HowSure />}
      {view === "year" && <Year />}
    </S.Screen>
  );
}
