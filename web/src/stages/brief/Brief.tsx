import { usePlan } from "../../data/plan";
import { Backward } from "./Backward";
import * as S from "./Brief.styles";
import { Assumptions } from "./Assumptions";
import { Descent } from "./Descent";
import { MoreOffers } from "./MoreOffers";
import { Platform } from "./Platform";
import { PastResults } from "./PastResults";
import { Season } from "./Season";
import { ThePlaces, ThePurse, TheRule, WhatIsSold, WhoBuys } from "./Sentences";
import { Showing } from "./Showing";

/** What is sold, to whom, at what margin, for how much a month: as sentences with blanks. */
export function Brief() {
  const { strange } = usePlan().summary.brief;
  return (
    <S.Split>
      <S.Letter>
        <h1>What a click is worth</h1>
        <WhatIsSold />
        <WhoBuys />
        <PastResults />
        <MoreOffers />
        <TheRule />
        <ThePurse />
        <ThePlaces />
        <Showing />
        <Platform />
        {strange.length > 0 && (
          <S.Strange role="note">
            {strange.map((sentence) => (
              <p key={sentence}>{sentence}</p>
            ))}
          </S.Strange>
        )}
        <S.Legend>
          <b>violet</b> was entered; <i>straw, dashed</i> is still assumed
        </S.Legend>
        <S.Beside>
          <Season />
          <Backward />
        </S.Beside>
        <Assumptions />
      </S.Letter>
      <Descent />
    </S.Split>
  );
}
