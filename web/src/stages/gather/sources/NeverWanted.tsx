import { useState } from "react";
import { type Schemas } from "../../../data/client";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { MainButton, TextButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { ItemsAway } from "../../../parts/TakeAway";
import { Small } from "../../../parts/Screen";
import { dayOf } from "../../../parts/days";
import * as S from "../Gather.styles";
import { wordsOf } from "../useReading";

type Match = Schemas["NegativeItem"]["match"];

const matches: { id: Match; name: string; about: string }[] = [
  { id: "phrase", name: "wherever they stand together", about: "Phrase: an unbroken run." },
  { id: "exact", name: "only as the whole search", about: "Exact." },
  { id: "broad", name: "in any order", about: "Broad: all of its words." },
];

/** Words never wanted: negatives that catch keywords on arrival. */
export function NeverWanted() {
  const send = usePlanChange();
  const [text, setText] = useState("");
  const [match, setMatch] = useState<Match>("phrase");
  const held = usePlanQuery("/negatives");
  const add = async () => {
    const body = { texts: wordsOf(text), match };
    if (await send("post", "/negatives", body)) setText("");
  };
  const remove = (id: number) => send("post", "/negatives/remove", { ids: [id] });
  return (
    <>
      <h2>Never wanted</h2>
      <Small>
        Negative keywords of the whole plan. They stop searches from being paid for, and catch
        keywords in the tray before they reach the sheet.
      </Small>
      <S.Line>
        <input
          aria-label="Words never wanted, between commas"
          placeholder="jobs, free, course"
          value={text}
          size={40}
          onChange={(event) => setText(event.currentTarget.value)}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Enter" && text.trim()) void add();
          }}
        />
        <Choice label="How they match" value={match} options={matches} onChange={setMatch} />
        <MainButton isDisabled={!text.trim()} onPress={() => void add()}>
          Never want these
        </MainButton>
      </S.Line>
      {held.data && held.data.length > 0 && (
        <S.Short>
          <thead>
            <tr>
              <th scope="col">Negative</th>
              <th scope="col">Match</th>
              <th scope="col">By</th>
              <th scope="col">Since</th>
              <th scope="col" aria-label="Take out">
                <ItemsAway
                  label="Negatives"
                  items={held.data}
                  columns={{
                    negative: (n) => n.text,
                    match: (n) => n.match,
                    by: (n) => n.by,
                    since: (n) => n.at,
                  }}
                />
              </th>
            </tr>
          </thead>
          <tbody>
            {held.data.map((negative) => (
              <tr key={negative.id}>
                <td>{negative.text}</td>
                <td>{negative.match}</td>
                <td>{negative.by}</td>
                <td>{dayOf(negative.at)}</td>
                <td>
                  <TextButton
                    aria-label={`Take out ${negative.text}`}
                    onPress={() => void remove(negative.id)}
                  >
                    take out
                  </TextButton>
                </td>
              </tr>
            ))}
          </tbody>
        </S.Short>
      )}
      {held.data?.length === 0 && <Small>No word is blocked yet.</Small>}
    </>
  );
}
