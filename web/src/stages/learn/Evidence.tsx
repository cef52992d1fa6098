import { percent } from "../../parts/format";
import * as S from "./Learn.styles";
import type { LearnView } from "./view";

type Props = {
  missing: number | null;
  verdict?: string;
  /** Where on the scale to stop, and to raise. */
  marks: Pick<LearnView, "stop_chance" | "raise_chance">;
};
const width = 96;

/** How sure it is that the rule is missed, on a scale with stop and raise marked on it. */
export function Evidence({ missing, verdict, marks }: Props) {
  if (missing === null) return <S.Faint>no price yet</S.Faint>;
  const x = (share: number) => 5 + share * (width - 10);
  return (
    <S.Scale>
      <svg width={width} height={14} aria-hidden>
        <line x1={5} x2={width - 5} y1={7} y2={7} />
        <path d={`M${x(marks.raise_chance)} 3V11M${x(marks.stop_chance)} 3V11`} />
        <circle cx={x(missing)} cy={7} r={3} data-verdict={verdict} />
      </svg>
      {percent(missing, 0)}
    </S.Scale>
  );
}
