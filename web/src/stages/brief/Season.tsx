import { useRef, useState, type KeyboardEvent, type PointerEvent } from "react";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { TextButton } from "../../parts/Button";
import { number } from "../../parts/format";
import * as S from "./Brief.styles";
import { months } from "./fields";

const most = 2;
const flat = Array.from({ length: 12 }, () => 1);

/** Twelve bars, a month's share of a mean month: dragged, or moved with the arrow keys. */
export function Season() {
  const { summary, changeBrief } = usePlan();
  const send = usePlanChange();
  const { season } = summary.brief.values;
  const [drawn, setDrawn] = useState<number[] | null>(null);
  const strip = useRef<HTMLDivElement>(null);
  const shown = drawn ?? season ?? flat;
  const commit = async (next: number[]) => {
    setDrawn(next);
    await changeBrief({ season: next });
    setDrawn(null);
  };
  const changed = (at: number, value: number) =>
    shown.map((share, i) =>
      i === at ? Math.round(Math.min(Math.max(value, 0), most) * 20) / 20 : share,
    );
  const key = (at: number) => (event: KeyboardEvent) => {
    const by = { ArrowUp: 0.1, ArrowDown: -0.1, PageUp: 0.5, PageDown: -0.5 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    void commit(changed(at, (shown[at] ?? 1) + by));
  };
  const drag = (at: number) => (event: PointerEvent) => {
    const box = strip.current?.getBoundingClientRect();
    if (!box || event.buttons !== 1) return;
    setDrawn(changed(at, (most * (box.bottom - event.clientY)) / box.height));
  };
  const fromKeywords = () => send("post", "/brief/season", undefined);
  return (
    <S.SeasonBox role="group" aria-label="The season">
      <p>Our season, against a mean month</p>
      <div ref={strip}>
        {shown.map((share, at) => (
          <S.Month
            key={months[at]?.id}
            role="slider"
            tabIndex={0}
            aria-label={months[at]?.name}
            aria-orientation="vertical"
            aria-valuenow={share}
            aria-valuemin={0}
            aria-valuemax={most}
            aria-valuetext={`${number(share, 2)} of a mean month`}
            data-assumed={!season || undefined}
            onKeyDown={key(at)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              drag(at)(event);
            }}
            onPointerMove={drag(at)}
            onPointerUp={() => drawn && void commit(drawn)}
          >
            <i style={{ height: `${(100 * share) / most}%` }} />
            <span>{months[at]?.name.slice(0, 1)}</span>
          </S.Month>
        ))}
      </div>
      <S.Aside>
        <TextButton onPress={() => void fromKeywords()}>take it from the keywords</TextButton>
        {season && <TextButton onPress={() => void changeBrief({ season: null })}>flat</TextButton>}
      </S.Aside>
    </S.SeasonBox>
  );
}
