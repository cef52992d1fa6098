import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { Button, MainButton } from "../../parts/Button";
import { Foot, Sheet } from "../../parts/Sheet";
import { A_NUMBER, money, number, parsed, plural } from "../../parts/format";
import * as S from "./Arrange.styles";

type Props = { open: boolean; onOpen: (open: boolean) => void };

const firstPercent = 5;

/** A scouting campaign in one step, and what it may cost. */
export const ScoutingSheet = ({ open, onOpen }: Props) => (
  <Sheet title="Look around: a scouting campaign" open={open} onOpen={onOpen} width={560}>
    <Scouting onDone={() => onOpen(false)} />
  </Sheet>
);

function Scouting({ onDone }: { onDone: () => void }) {
  const { id, summary } = usePlan();
  const send = usePlanChange();
  const [share, setShare] = useState(firstPercent / 100);
  const [bid, setBid] = useState<number | null>(null);
  const { currency } = summary.brief.values;
  const found = useQuery({
    queryKey: ["scouting", id, summary.revision, share, bid],
    queryFn: () =>
      taken(
        client.POST("/api/plans/{plan_id}/arrange/scouting/look", {
          params: { path: { plan_id: id } },
          body: { share, bid },
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const look = found.data;
  const go = () =>
    void send("post", "/arrange/scouting", { share, bid }).then((took) => took && onDone());
  const wrong = found.error?.message ?? (look?.there ? "There is one already." : "");
  return (
    <>
      <S.Say>
        Set{" "}
        <Blank
          label="Share of the purse for scouting, per cent"
          value={number(share * 100, 0)}
          onCommit={(text) => {
            const typed = parsed(text);
            const fits = typed !== null && typed > 0 && typed <= 100;
            if (fits) setShare(typed / 100);
            return fits || "a share over 0, at most 100 %";
          }}
        />{" "}
        % of the purse aside and bid{" "}
        <Blank
          label="Bid of a scout"
          value={bid === null ? "" : number(bid, 2)}
          placeholder={look ? number(look.bid, 2) : "low"}
          assumed={bid === null}
          onCommit={(text) => {
            const typed = text.trim() === "" ? null : parsed(text);
            if (text.trim() !== "" && typed === null) return A_NUMBER;
            setBid(typed);
            return true;
          }}
        />{" "}
        {currency}
        {look?.low_price != null && `, where the market begins at ${money(look.low_price)}`}, on
        wide keywords of every offer.
      </S.Say>
      {look && (
        <>
          <p>
            It costs up to <b>{money(look.cost)}</b> {currency} a month. What it finds are terms
            nobody has thought of yet; no customer is promised. {plural(look.blocked, "known text")}{" "}
            {look.blocked === 1 ? "is" : "are"} blocked in it, so that it pays for nothing you
            already buy.
          </p>
          <S.Lines aria-label="Wide keywords">
            {look.keywords.map((text) => (
              <li key={text}>{text}</li>
            ))}
          </S.Lines>
        </>
      )}
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        {wrong && <S.Wrong role="status">{wrong}</S.Wrong>}
        <MainButton isDisabled={!look || wrong !== ""} onPress={go}>
          Make it
        </MainButton>
      </Foot>
    </>
  );
}
