import type { CallName } from "../../data/client";
import { CallMark } from "../../parts/CallMark";
import * as S from "./Sift.styles";

const calls: [CallName, string][] = [
  ["keep", "1"],
  ["hold", "2"],
  ["drop", "3"],
  ["block", "4"],
];

type Props = { count: number; onCall: (call: CallName) => void };

/** The four calls with their keys, for whatever is selected. */
export function CallBar({ count, onCall }: Props) {
  return (
    <S.Calls role="group" aria-label="Call the selected keywords">
      {calls.map(([call, key]) => (
        <S.CallButton key={call} isDisabled={count === 0} onPress={() => onCall(call)}>
          <span aria-hidden>
            <CallMark call={call} />
          </span>
          {call} <kbd>{key}</kbd>
        </S.CallButton>
      ))}
    </S.Calls>
  );
}
