import { useState } from "react";
import type { Schemas } from "../../data/client";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { Choice } from "../../parts/Choice";

type By = Schemas["GroupSplit"]["by"];

const ways: { id: By | ""; name: string }[] = [
  { id: "", name: "split by …" },
  { id: "word", name: "a word" },
  { id: "intent", name: "intent" },
  { id: "match", name: "match type" },
  { id: "offer", name: "offer" },
];

/** Parts a group: by a word that is typed, or by what its keywords are. */
export function SplitLine({ group }: { group: number }) {
  const send = usePlanChange();
  const [typing, setTyping] = useState(false);
  const split = (by: By, word = "") =>
    send("post", "/arrange/groups/{group_id}/split", { by, word }, { group_id: group });
  if (typing)
    return (
      <span>
        split off keywords with{" "}
        <Blank
          label="The word that leaves"
          value=""
          placeholder="a word"
          focused
          onLeave={() => setTyping(false)}
          onCommit={(word) => word.trim() === "" || split("word", word)}
        />
      </span>
    );
  return (
    <Choice
      label="Split the group"
      value=""
      options={ways}
      inline
      onChange={(by) => {
        if (by === "word") setTyping(true);
        else if (by !== "") void split(by);
      }}
    />
  );
}
