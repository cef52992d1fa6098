import type { Schemas } from "../../data/client";
import { Blank } from "../../parts/Blank";
import { Choice } from "../../parts/Choice";
import { number, parsed } from "../../parts/format";
import * as S from "./Arrange.styles";

export type Dial = { lower: NonNullable<Schemas["StructureChoice"]["lower"]>; by: number };
type Props = { dial: Dial; onDial: (dial: Dial) => void };

const firstPercent = 20;

const ways: { id: Dial["lower"]; name: string }[] = [
  { id: "neither", name: "as fitted" },
  { id: "phrase", name: "lower as phrase match" },
  { id: "exact", name: "lower as exact match" },
];

/** Which of an exact keyword and the same as phrase match bids lower, and by how much. */
export function TwinDial({ dial, onDial }: Props) {
  return (
    <S.Say>
      The same keyword bids{" "}
      <Choice
        label="Which of two bids lower"
        value={dial.lower}
        options={ways}
        inline
        onChange={(lower) =>
          onDial({ lower, by: lower === "neither" ? 0 : dial.by || firstPercent / 100 })
        }
      />
      {dial.lower !== "neither" && (
        <>
          {" "}
          by{" "}
          <Blank
            label="How much lower, per cent"
            value={number(dial.by * 100, 0)}
            onCommit={(text) => {
              const share = parsed(text);
              const fits = share !== null && share > 0 && share < 100;
              if (fits) onDial({ ...dial, by: share / 100 });
              return fits || "a share over 0 and under 100 %";
            }}
          />{" "}
          %, its bid set by hand
        </>
      )}
      . Phrase groups leave the very texts to the exact ones.
    </S.Say>
  );
}
