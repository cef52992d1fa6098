import { useState } from "react";
import { client, taken, type Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { usePlanQuery } from "../../../data/usePlanQuery";
import { useSaying } from "../../../data/saying";
import { Button, MainButton, TextButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Field, Foot, Sheet } from "../../../parts/Sheet";
import { money, number, plural } from "../../../parts/format";
import * as A from "../Arrange.styles";

type Item = Schemas["ListItem"];
type Props = { open: boolean; onOpen: (open: boolean) => void };

/** Named lists of negatives: which the plan uses, which are newer, what each would do. */
export const ListsSheet = ({ open, onOpen }: Props) => (
  <Sheet title="Lists of negatives" open={open} onOpen={onOpen} width={640}>
    <Lists onDone={() => onOpen(false)} />
  </Sheet>
);

function Lists({ onDone }: { onDone: () => void }) {
  const lists = usePlanQuery("/arrange/lists").data?.lists ?? [];
  const [writing, setWriting] = useState<Item | "new" | null>(null);
  if (writing !== null)
    return <Writing list={writing === "new" ? null : writing} onDone={() => setWriting(null)} />;
  return (
    <>
      <p>
        What a trade never wants, kept once. A plan uses a list as it was when taken: a newer
        edition acts when you take it.
      </p>
      <A.Lines aria-label="Lists">
        {lists.map((list) => (
          <One key={list.id ?? list.name} list={list} onWrite={() => setWriting(list)} />
        ))}
        {lists.length === 0 && <li>No list yet: jobs, free things, learners are usual ones.</li>}
      </A.Lines>
      <Foot>
        <Button onPress={onDone}>Close</Button>
        <MainButton onPress={() => setWriting("new")}>New list …</MainButton>
      </Foot>
    </>
  );
}

function One({ list, onWrite }: { list: Item; onWrite: () => void }) {
  const { summary } = usePlan();
  const send = usePlanChange();
  const of = { list_id: list.id ?? 0 };
  const use = () => void send("post", "/arrange/lists/{list_id}/use", undefined, of);
  const leave = () =>
    void send("post", "/arrange/lists/pinned/{pinned_id}/leave", undefined, {
      pinned_id: list.pinned_id!,
    });
  return (
    <li>
      <b>{list.name}</b>{" "}
      <A.Soft>
        {plural(list.rows.length, "negative")},{" "}
        {list.of_client ? "this client’s" : "of all clients"}
        {list.saves > 0 && `; saves ${money(list.saves)} ${summary.brief.values.currency} a month`}
      </A.Soft>{" "}
      {list.hurts.length > 0 && <A.Wrong>hurts {list.hurts.join(", ")}</A.Wrong>}
      <br />
      {list.pinned_id === null ? (
        <TextButton aria-label={`use it in this plan: ${list.name}`} onPress={use}>
          use it in this plan
        </TextButton>
      ) : (
        <>
          used, edition {number(list.pinned_edition)}{" "}
          {list.newer && (
            <TextButton
              aria-label={`take edition ${number(list.edition)}: ${list.name}`}
              onPress={use}
            >
              take edition {number(list.edition)}
            </TextButton>
          )}
          <TextButton aria-label={`leave it: ${list.name}`} onPress={leave}>
            leave it
          </TextButton>
        </>
      )}
      {list.id !== null && (
        <>
          <TextButton aria-label={`change …: ${list.name}`} onPress={onWrite}>
            change …
          </TextButton>
          <TextButton
            aria-label={`Remove ${list.name}`}
            onPress={() => void send("post", "/arrange/lists/{list_id}/remove", undefined, of)}
          >
            remove
          </TextButton>
        </>
      )}
    </li>
  );
}

const owners = [
  { id: "client", name: "for this client’s plans" },
  { id: "all", name: "for all clients" },
] as const;

/** A list's name and rows, one a line; a line that can't be used is said, and stays. */
function Writing({ list, onDone }: { list: Item | null; onDone: () => void }) {
  const { id } = usePlan();
  const send = usePlanChange();
  const { complain } = useSaying();
  const [name, setName] = useState(list?.name ?? "");
  const [text, setText] = useState(list?.rows.map((r) => `${r.text}\t${r.match}`).join("\n") ?? "");
  const [owner, setOwner] = useState<(typeof owners)[number]["id"]>("client");
  const [refused, setRefused] = useState<string[]>([]);
  const rowsOf = async () => {
    if (text.trim() === "") return [];
    const path = { params: { path: { plan_id: id } } };
    const body = { text, match: "phrase" as const, campaign_id: null, group_id: null };
    const read = await taken(
      client.POST("/api/plans/{plan_id}/arrange/negatives/read", { ...path, body }),
    );
    const bad = read.lines.filter((line) => line.refused !== "");
    setRefused(bad.map((line) => `line ${line.line}: ${line.refused}`));
    return bad.length > 0
      ? null
      : read.lines.map((line) => ({ text: line.text, match: line.match }));
  };
  const keep = async () => {
    try {
      const rows = await rowsOf();
      if (rows === null) return;
      const took =
        list === null
          ? await send("post", "/arrange/lists", { name, rows, of_client: owner === "client" })
          : await send(
              "post",
              "/arrange/lists/{list_id}",
              { name: name === list.name ? null : name, rows },
              { list_id: list.id! },
            );
      if (took) onDone();
    } catch (error) {
      complain(error);
    }
  };
  return (
    <>
      <Field>
        called
        <input
          // eslint-disable-next-line jsx-a11y/no-autofocus -- the planner just asked to write it
          autoFocus
          value={name}
          maxLength={120}
          onChange={(event) => setName(event.currentTarget.value)}
        />
      </Field>
      {list === null && (
        <A.Line>
          <Choice label="Whose list" value={owner} options={owners} inline onChange={setOwner} />
        </A.Line>
      )}
      <A.Paste
        aria-label="Negatives of the list, one a line"
        rows={9}
        value={text}
        placeholder={"jobs\nfree course, exact"}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      {refused.map((why) => (
        <A.Wrong key={why} role="alert">
          {why}
        </A.Wrong>
      ))}
      <Foot>
        <Button onPress={onDone}>Leave it</Button>
        <MainButton isDisabled={name.trim() === ""} onPress={() => void keep()}>
          Keep the list
        </MainButton>
      </Foot>
    </>
  );
}
