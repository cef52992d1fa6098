import { TextButton } from "../../parts/Button";
import { plural } from "../../parts/format";
import * as S from "./Gather.styles";
import type { Near, Part } from "./tray";
import type { Verdict } from "./useVerdicts";

type Props = {
  part: Part;
  near: Near;
  onNear: (near: Near) => void;
  caught: boolean;
  onCaught: (caught: boolean) => void;
  /** How many rows are selected; null for none, which means all. */
  judged: number | null;
  onVerdict: (verdict: Verdict) => void;
  refusedFile: string | null;
};

const nears: { id: Near; name: string }[] = [
  { id: "leave", name: "leave them out" },
  { id: "merge", name: "merge: their figures beside those of the other" },
  { id: "take", name: "take them in too" },
];
const verdicts: { id: Verdict; name: string; key: string }[] = [
  { id: "take", name: "take the new", key: "t" },
  { id: "keep", name: "keep the old", key: "k" },
  { id: "mean", name: "use the mean", key: "m" },
];

/** What can be done with one kind of row, said above its list. */
export function TrayHint(props: Props) {
  const { part, near, onNear, caught, onCaught, judged, onVerdict, refusedFile } = props;
  if (part === "near")
    return (
      <S.Units>
        The same words in another order, form or accent:
        {nears.map((way) => (
          <TextButton
            key={way.id}
            aria-pressed={near === way.id}
            data-chosen={near === way.id || undefined}
            onPress={() => onNear(way.id)}
          >
            {way.name}
          </TextButton>
        ))}
      </S.Units>
    );
  if (part === "caught")
    return (
      <S.Units>
        A word that is never wanted stands in these. They are left out unless you say so:
        <TextButton onPress={() => onCaught(!caught)}>
          {caught ? "leave them out" : "take them in, dropped"}
        </TextButton>
      </S.Units>
    );
  if (part === "changed")
    return (
      <S.Units>
        {judged === null ? "All of them" : plural(judged, "selected row")}:
        {verdicts.map((way) => (
          <TextButton key={way.id} onPress={() => onVerdict(way.id)}>
            {way.name} <kbd>{way.key}</kbd>
          </TextButton>
        ))}
        <span>What is not used stands beside as a reading.</span>
      </S.Units>
    );
  if (part === "cleaned")
    return (
      <S.Units>
        One case, single spaces, and none of the characters the ad platform refuses.
      </S.Units>
    );
  if (part === "refused" && refusedFile)
    return (
      <S.Units>
        <a href={refusedFile} download>
          Save the refused rows as a CSV
        </a>
        to mend them and bring them back.
      </S.Units>
    );
  return null;
}
