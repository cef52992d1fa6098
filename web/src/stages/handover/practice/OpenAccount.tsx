import { useState } from "react";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { useSaying } from "../../../data/saying";
import { Blank } from "../../../parts/Blank";
import { Button, MainButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Sentence } from "../../../parts/Sentence";
import { number, parsed } from "../../../parts/format";
import * as S from "./Practice.styles";
import type { PracticeView } from "./usePractice";

type Level = Schemas["PracticeAccountItem"]["level"];
type Props = { again: boolean; onOpened: (view: PracticeView) => void; onLeave: () => void };

const levels: { id: Level; name: string; about: string }[] = [
  { id: "as-planned", name: "as near as the plan thinks", about: "every doubt is as it is drawn" },
  { id: "usual", name: "as unlike it as is usual", about: "themes, rivals, late customers" },
  { id: "rough", name: "far from it", about: "dead keywords, invalid clicks, wrong intents" },
];

/** A practice account is opened: how far the hidden truth may lie from the plan, and which it is. */
export function OpenAccount({ again, onOpened, onLeave }: Props) {
  const { id } = usePlan();
  const { complain } = useSaying();
  const [level, setLevel] = useState<Level>("usual");
  const [seed, setSeed] = useState(1);
  const [asked, setAsked] = useState(false);
  const open = async () => {
    setAsked(true);
    try {
      const body = { level, seed };
      onOpened(
        await taken(
          client.POST("/api/plans/{plan_id}/practice", {
            params: { path: { plan_id: id } },
            body,
          }),
        ),
      );
    } catch (error) {
      complain(error);
    }
    setAsked(false);
  };
  return (
    <S.Opening>
      <h2>{again ? "Another practice account" : "Try it before a penny is spent"}</h2>
      <p>
        The practice market is a simulated platform that ships with the program. It draws a hidden
        truth about your keywords, takes your sheets row by row as a real platform would, lets days
        pass in seconds, and reports what came of them. Nothing leaves this machine.
      </p>
      <Sentence>
        Let the truth be{" "}
        <Choice
          label="How far the truth lies"
          inline
          value={level}
          options={levels}
          onChange={setLevel}
        />
        ; of all such truths take no.{" "}
        <Blank
          label="Number of the truth"
          value={number(seed)}
          onCommit={(text) => {
            const value = parsed(text);
            if (value === null || value < 0 || !Number.isInteger(value))
              return "a whole number from 0";
            setSeed(value);
            return true;
          }}
        />
        . The same number is always the same truth.
      </Sentence>
      <div>
        <MainButton isDisabled={asked} onPress={() => void open()}>
          Open the account
        </MainButton>
        {again && <Button onPress={onLeave}>Stay with the one that is open</Button>}
      </div>
    </S.Opening>
  );
}
