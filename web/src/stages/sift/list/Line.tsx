import { useRef, useState } from "react";
import { rowHeight } from "../../../look/tokens";
import { TextButton } from "../../../parts/Button";
import { usePlan } from "../../../data/plan";
import { useTry, type WhatIf } from "../../../data/whatIf";
import { count, money, percent, plural } from "../../../parts/format";
import * as S from "../Sift.styles";
import { ruleWords } from "../ruleWords";

type Props = {
  byPrice: boolean;
  limit: number;
  /** The planner has set a highest price. */
  own: boolean;
  beyond: number;
  /** What would be changed were the line moved by so many rows. */
  moved: (by: number) => WhatIf;
  onMove: (rows: number) => void;
  onFree: () => void;
};

/** The line across the list; in order of price it is dragged, or moved by [ and ]. */
export function Line({ byPrice, limit, own, beyond, moved, onMove, onFree }: Props) {
  const { summary } = usePlan();
  const [drag, setDrag] = useState(0);
  const start = useRef<number | null>(null);
  const rows = Math.round(drag / rowHeight);
  const tried = useTry(rows === 0 ? null : moved(rows));
  const { ceiling_rule: rule, ceiling_value: value } = tried ?? summary.brief.values;
  const price = byPrice ? (tried?.max_cpc ?? limit) : limit;
  return (
    <S.Line style={{ transform: `translateY(${drag}px)` }} data-dragging={drag !== 0 || undefined}>
      <strong>the line</strong>
      <span>
        {byPrice
          ? `${own ? "your highest price" : "the ceiling of buying intent"}, ${money(price)} a click`
          : `here ${ruleWords(rule, value)} ends: below it under ${percent(summary.brief.acting.stretch)} of the searches can be won`}
        {tried
          ? `; ${plural(tried.beyond, "keyword")} beyond, ${count(tried.purse.customers)} customers`
          : beyond > 0 && !byPrice && `; ${plural(beyond, "keyword")} beyond`}
      </span>
      {own && <TextButton onPress={onFree}>no highest price</TextButton>}
      <S.Handle
        role="slider"
        tabIndex={0}
        aria-label={
          byPrice ? "The line: highest price of a click" : "The line: where headroom ends"
        }
        aria-orientation="vertical"
        aria-valuemin={0}
        aria-valuenow={limit}
        aria-valuetext={`${money(limit)} a click`}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          start.current = event.clientY;
        }}
        onPointerMove={(event) => {
          if (start.current !== null) setDrag(event.clientY - start.current);
        }}
        onPointerUp={() => {
          start.current = null;
          setDrag(0);
          if (rows !== 0) onMove(rows);
        }}
        onKeyDown={(event) => {
          const by = { ArrowUp: -1, ArrowDown: 1, PageUp: -10, PageDown: 10 }[event.key];
          if (by === undefined) return;
          event.preventDefault();
          event.stopPropagation();
          onMove(by);
        }}
      >
        {drag === 0
          ? "drag, or [ ]"
          : `${plural(Math.abs(rows), "keyword")} ${rows < 0 ? "fewer" : "more"}`}
      </S.Handle>
    </S.Line>
  );
}
