import type { Schemas } from "../../../data/client";
import * as S from "./ads.styles";

type Fields = readonly Schemas["FieldItem"][];
type Props = { headlines: Fields; descriptions: Fields };

/** An ad as somebody would read it: its fields written out, on plain paper. */
export function AdSlip({ headlines, descriptions }: Props) {
  const [first, ...more] = headlines.filter(({ shown }) => shown);
  return (
    <S.Slip dir="auto" aria-label="The ad as it would be read">
      <b>{first?.shown ?? "No headline yet"}</b>
      {more.length > 0 && <i>{more.map(({ shown }) => shown).join(" · ")}</i>}
      {descriptions.map(({ name, shown }) => shown && <p key={name}>{shown}</p>)}
    </S.Slip>
  );
}
