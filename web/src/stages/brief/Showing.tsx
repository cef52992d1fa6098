import { ToggleButton } from "react-aria-components";
import { usePlan } from "../../data/plan";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import * as S from "./Brief.styles";
import { hundredths, type Values } from "./fields";
import { parsed } from "../../parts/format";

type Times = NonNullable<Values["showing"]>;

const days = Array.from({ length: 7 }, (_, day) =>
  new Intl.DateTimeFormat("en", { weekday: "short" }).format(new Date(2026, 5, 1 + day)),
);
const hour = (at: number) => ({ id: String(at), name: `${String(at).padStart(2, "0")}:00` });
const starts = Array.from({ length: 24 }, (_, at) => hour(at));
const ends = Array.from({ length: 24 }, (_, at) => hour(at + 1));
const here = Intl.DateTimeFormat().resolvedOptions().timeZone;
const always: Times = {
  days: days.map(() => true),
  from_hour: 0,
  to_hour: 24,
  zone: here,
  share: null,
};

/** Days and hours of showing, with the share of searches that falls in them. */
export function Showing() {
  const { summary, changeBrief } = usePlan();
  const held = summary.brief.values.showing;
  const shown = held ?? always;
  const set = (some: Partial<Times>) =>
    changeBrief({ showing: { ...shown, zone: shown.zone || here, ...some } });
  const picked = shown.days.flatMap((on, day) => (on ? [String(day)] : []));
  return (
    <S.Sentence>
      Ads are shown on{" "}
      <S.Days
        aria-label="Days of showing"
        selectionMode="multiple"
        disallowEmptySelection
        selectedKeys={picked}
        onSelectionChange={(keys) => void set({ days: days.map((_, d) => keys.has(String(d))) })}
      >
        {days.map((name, day) => (
          <ToggleButton key={name} id={String(day)}>
            {name}
          </ToggleButton>
        ))}
      </S.Days>{" "}
      from{" "}
      <Choice
        label="Shown from"
        value={String(shown.from_hour)}
        options={starts}
        inline
        assumed={!held}
        onChange={(at) => void set({ from_hour: Number(at) })}
      />{" "}
      to{" "}
      <Choice
        label="Shown until"
        value={String(shown.to_hour)}
        options={ends}
        inline
        assumed={!held}
        onChange={(at) => void set({ to_hour: Number(at) })}
      />{" "}
      <S.Aside>({shown.zone || here})</S.Aside>, when{" "}
      <Blank
        label="Share of searches shown, per cent"
        value={hundredths(summary.brief.shown_share)}
        assumed={shown.share === null}
        onCommit={(text) => {
          if (text.trim() === "") return set({ share: null });
          const share = parsed(text);
          return share !== null && set({ share: share / 100 });
        }}
      />{" "}
      % of a week&rsquo;s searches are made.{" "}
      {held && (
        <S.Aside>
          <TextButton onPress={() => void changeBrief({ showing: null })}>always</TextButton>
        </S.Aside>
      )}
    </S.Sentence>
  );
}
