import type { Schemas } from "../../../data/client";
import * as S from "./ads.styles";

type Props = { look: Schemas["AdLook"] };

/** What is wrong with an ad as a whole, and what it says: a line each, with its answer. */
export function AdLines({ look }: Props) {
  const whole = look.faults.filter(({ field }) => field === "");
  return (
    <>
      {whole.length > 0 && (
        <>
          <S.Heading>To look at</S.Heading>
          <S.Said>
            {whole.map(({ kind, says }) => (
              <li key={kind + says} data-wrong>
                <span aria-hidden>×</span>
                <span>{says}</span>
              </li>
            ))}
          </S.Said>
        </>
      )}
      <S.Heading>What it says</S.Heading>
      <S.Said>
        {look.lines.map(({ kind, said, says, mend }) => (
          <li key={kind + says} data-not={!said || undefined}>
            <span role="img" aria-label={said ? "said" : "not said"}>
              {said ? "✓" : "–"}
            </span>
            <span>
              {says} {mend && <small>{mend}</small>}
            </span>
          </li>
        ))}
      </S.Said>
    </>
  );
}
