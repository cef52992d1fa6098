import { useId, useRef, useState, type FocusEvent, type KeyboardEvent } from "react";
import type { Schemas } from "../../../data/client";
import { usePlanChange } from "../../../data/usePlanChange";
import { number } from "../../../parts/format";
import { AdLines } from "./AdLines";
import { AdSlip } from "./AdSlip";
import * as S from "./ads.styles";
import { useAdLook } from "./useAdLook";

type Ad = Schemas["AdItem"];
type Props = {
  group: number;
  /** The ad as it is kept; none for one that is being written. */
  ad: Ad | undefined;
  limits: Schemas["AdLimits"];
  focused: boolean;
};

/** An ad on a slip, its fields counted beside it; kept when it is left, or with Enter. */
export function AdForm({ group, ad, limits, focused }: Props) {
  const send = usePlanChange();
  const kept = textsOf(ad, limits);
  const [typed, setTyped] = useState<string[] | null>(null);
  const keeping = useRef(false);
  const texts = typed ?? kept.texts;
  const heads = kept.headlines;
  const draft = {
    group_id: group,
    ad_id: ad?.id ?? null,
    headlines: texts.slice(0, heads),
    descriptions: texts.slice(heads),
  };
  const look = useAdLook(draft);
  const keep = async () => {
    const changed = typed?.some((text, at) => text.trim() !== kept.texts[at]);
    if (!changed || keeping.current) return;
    keeping.current = true;
    const took = await send("post", "/arrange/ads", draft);
    keeping.current = false;
    if (took) setTyped(null);
  };
  const onBlur = (event: FocusEvent) => {
    if (!event.currentTarget.contains(event.relatedTarget)) void keep();
  };
  const onKeyDown = (event: KeyboardEvent) => {
    event.stopPropagation();
    if (event.key === "Escape") setTyped(null);
    if (event.key !== "Enter") return;
    event.preventDefault(); // an ad has no lines of its own
    void keep();
  };
  if (!look) return null;
  const blank = texts.every((text) => text === ""); // nobody is told off before they began
  return (
    <>
      <AdSlip headlines={look.headlines} descriptions={look.descriptions} />
      <S.Fields onBlur={onBlur} onKeyDown={onKeyDown}>
        {texts.map((text, at) => (
          <AdField
            key={at}
            name={at < heads ? `headline ${at + 1}` : `description ${at - heads + 1}`}
            text={text}
            look={at < heads ? look.headlines[at] : look.descriptions[at - heads]}
            most={at < heads ? limits.headline_characters : limits.description_characters}
            faults={blank ? [] : look.faults}
            focused={focused && at === 0}
            onType={(next) => setTyped(texts.map((one, place) => (place === at ? next : one)))}
          />
        ))}
      </S.Fields>
      <AdLines look={look} />
    </>
  );
}

type FieldProps = {
  name: string;
  text: string;
  look: Schemas["FieldItem"] | undefined;
  most: number;
  faults: readonly Schemas["AdFaultItem"][];
  focused: boolean;
  onType: (text: string) => void;
};

function AdField({ name, text, look, most, faults, focused, onType }: FieldProps) {
  const id = useId();
  const mine = faults.filter(({ field }) => field === name);
  const said = mine.filter(({ kind }) => kind !== "too_long");
  const used = look?.characters ?? 0;
  return (
    <S.FieldLine>
      <label htmlFor={id}>{name}</label>
      <textarea
        id={id}
        rows={1}
        dir="auto"
        value={text}
        aria-invalid={mine.length > 0 || undefined}
        aria-describedby={`${id}-count`}
        // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just asked to write it
        autoFocus={focused}
        onChange={(event) => onType(event.currentTarget.value)}
      />
      <output id={`${id}-count`} data-over={used > most || undefined}>
        {used > most
          ? `${number(used)}, ${number(used - most)} over`
          : `${number(used)} of ${number(most)}`}
      </output>
      {said.map(({ kind, says }) => (
        <small key={kind + says}>{says}</small>
      ))}
    </S.FieldLine>
  );
}

/** An ad's fields in one row: as many as the platform has, or the ad holds. */
function textsOf(ad: Ad | undefined, limits: Schemas["AdLimits"]) {
  const padded = (texts: readonly string[], most: number) => [
    ...texts,
    ...Array<string>(Math.max(most - texts.length, 0)).fill(""),
  ];
  const heads = padded(ad?.written_headlines ?? [], limits.headlines);
  const texts = padded(ad?.written_descriptions ?? [], limits.descriptions);
  return { texts: [...heads, ...texts], headlines: heads.length };
}
