import { percent } from "../../parts/format";
import * as S from "./Learn.styles";

type Props = { missing: number | null; verdict?: string };
const width = 96;
const stop = 0.93;
const raise = 0.1;

/** How sure it is that the rule is missed, on a scale with stop and raise marked on it. */
export function Evidence({ missing, verdict }: Props) {
  if (missing === null) return <S.Faint>no price yet</S.Faint>;
  const x = (share: number) => 5 + share * (width - 10);
  return (
    <S.Scale>
      <svg width={width} height={14} aria-hidden>
        <line x1={5} x2={width - 5} y1={7} y2={7} />
        <path d={`M${x(raise)} 3V11M${x(stop)} 3V11`} />
        <circle cx={x(missing)} cy={7} r={3.4} data-verdict={verdict} />
      </svg>
      {percent(missing, 0)}
    </S.Scale>
  );
}
