import { useState } from "react";
import type { Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { Blank } from "../../parts/Blank";
import { Choice } from "../../parts/Choice";
import { number, parsed } from "../../parts/format";
import type { Tray } from "./tray";
import * as S from "./Gather.styles";

type Props = {
  tray: Tray;
  onAssign: (some: Partial<Schemas["ColumnChoice"]>) => Promise<void>;
};

const periods = [
  { id: "month", name: "a month" },
  { id: "day", name: "a day", about: "Brought to a month of 365/12 days." },
] as const;
const counts = [
  { id: "searches", name: "searches" },
  {
    id: "showings",
    name: "times shown at a bid of",
    about: "Searches are worked out by the share that such a bid wins.",
  },
] as const;
const bases = [
  { id: "", name: "as the brief says" },
  { id: "exact", name: "the very text" },
  { id: "phrase", name: "the text within longer ones" },
  { id: "broad", name: "anything close to it" },
] as const;
const prices = [
  { id: "click", name: "for one click" },
  { id: "sum", name: "for all clicks of the period", about: "Divided by the column of clicks." },
] as const;

/** What the figures of a file count, where the file can't say it. */
export function TrayUnits({ tray, onAssign }: Props) {
  const { currency } = usePlan().summary.brief.values;
  const [shownAt, setShownAt] = useState<number | null>(tray.shown_at_bid);
  return (
    <S.Units>
      {tray.sheets.length > 1 && (
        <Choice
          label="Sheet"
          value={tray.sheet}
          options={tray.sheets.map((name) => ({ id: name, name }))}
          onChange={(sheet) => void onAssign({ sheet })}
        />
      )}
      Volumes are
      <Choice
        label="Volumes are"
        value={shownAt === null ? "searches" : "showings"}
        options={counts}
        onChange={(what) => {
          if (what === "searches") void onAssign({ shown_at_bid: null });
          setShownAt(what === "searches" ? null : (tray.shown_at_bid ?? 0));
        }}
      />
      {shownAt !== null && (
        <Blank
          label="Bid at which they were shown"
          value={shownAt > 0 ? number(shownAt, 2) : ""}
          placeholder="a bid"
          onCommit={(text) => {
            const bid = parsed(text);
            if (bid === null || bid <= 0) return "a bid over 0";
            setShownAt(bid);
            return onAssign({ shown_at_bid: bid }).then(() => true);
          }}
        />
      )}
      <Choice
        label="Volumes are for"
        value={tray.period}
        options={periods}
        onChange={(period) => void onAssign({ period })}
      />
      and count
      <Choice
        label="Volumes count"
        value={tray.basis}
        options={bases}
        onChange={(basis) => void onAssign({ basis })}
      />
      for
      <Blank
        label="Area the volumes count"
        value={tray.area}
        placeholder="the counted area"
        onCommit={(area) => onAssign({ area }).then(() => true)}
      />
      ; prices are
      <Choice
        label="Prices are"
        value={tray.price}
        options={prices}
        onChange={(price) => void onAssign({ price })}
      />
      {tray.currency && tray.currency !== currency && (
        <OtherMoney tray={tray} currency={currency} onAssign={onAssign} />
      )}
    </S.Units>
  );
}

/** Prices in another currency than the plan's: what one of it is has to be said. */
function OtherMoney({ tray, currency, onAssign }: Props & { currency: string }) {
  const { price_rate: rate } = tray;
  return (
    <>
      in {tray.currency}, of which one is
      <Blank
        label={`One ${tray.currency} in ${currency}`}
        value={rate === null ? "" : String(rate)}
        placeholder="not said"
        onCommit={(text) => {
          const said = parsed(text);
          if (said === null || said <= 0) return "a figure over 0";
          return onAssign({ price_rate: said }).then(() => true);
        }}
      />
      {currency}
      {rate === null && <S.Rose> (until that is said, prices are left out)</S.Rose>}
    </>
  );
}
