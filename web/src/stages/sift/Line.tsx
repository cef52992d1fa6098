import { useRef, useState } from "react";
import { rowHeight } from "../../look/tokens";
import { TextButton } from "../../parts/Button";
import { money, plural } from "../../parts/format";
import * as S from "./Sift.styles";

type Props = {
  byPrice: boolean;
  limit: number;
  /** The planner has set a highest price. */
  own: boolean;
  beyond: number;
  onMove: (rows: number) => void;
  onFree: () => void;
};

/** The line across the ladder; in order of price it is dragged, or moved by [ and ]. */
export function Line({ byPrice, limit, own, beyond, onMove, onFree }: Props) {
  const [drag, setDrag] = useState(0);
  const start = useRef<number | null>(null);
  const rows = Math.round(drag / rowHeight);
  return (
    <S.Line style={{ transform: `translateY(${drag}px)` }} data-dragging={drag !== 0 || undefined}>
      <strong>the line</strong>
      <span>
        {byPrice
          ? `${own ? "your highest price" : "the ceiling of buying intent"}, ${money(limit)} a click`
          : "here headroom ends: under a quarter of the searches can be won"}
        {beyond > 0 && !byPrice && `; ${plural(beyond, "keyword")} beyond`}
      </span>
      {own && <TextButton onPress={onFree}>no highest price</TextButton>}
      {byPrice ? (
        <S.Handle
          role="slider"
          tabIndex={0}
          aria-label="The line: highest price of a click"
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
      ) : (
        <S.Soft>
          sort by price to drag it, or <kbd>[</kbd> <kbd>]</kbd>
        </S.Soft>
      )}
    </S.Line>
  );
}
