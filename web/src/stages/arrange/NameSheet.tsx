import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { Blank } from "../../parts/Blank";
import { Button, MainButton, TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Foot, Sheet } from "../../parts/Sheet";
import { NotYet } from "../../parts/NotYet";
import { number, plural } from "../../parts/format";
import { useSettled } from "../../parts/useSettled";
import * as S from "./Arrange.styles";

type Rule = Schemas["NameRule"];
type Part = Rule["parts"][number];
type Props = {
  open: boolean;
  onOpen: (open: boolean) => void;
  /** The groups that are named; all where none is. */
  groups: readonly number[];
};

const settleMilliseconds = 200;
const shownNames = 200;

const partNames: { id: Part; name: string }[] = [
  { id: "name", name: "today’s name" },
  { id: "theme", name: "its main words" },
  { id: "offer", name: "the offer" },
  { id: "match", name: "the match type" },
  { id: "place", name: "the place" },
  { id: "month", name: "the month" },
  { id: "note", name: "a note" },
];

/** What groups are called, by a rule: every name is seen before one is changed. */
export const NameSheet = ({ open, onOpen, groups }: Props) => (
  <Sheet
    title={groups.length > 0 ? `Name ${plural(groups.length, "group")}` : "Name all groups"}
    open={open}
    onOpen={onOpen}
    width={620}
  >
    <Naming groups={groups} onDone={() => onOpen(false)} />
  </Sheet>
);

function Naming({ groups, onDone }: { groups: readonly number[]; onDone: () => void }) {
  const send = usePlanChange();
  const [parts, setParts] = useState<readonly Part[]>(["theme", "match"]);
  const [separator, setSeparator] = useState(" · ");
  const [note, setNote] = useState("");
  const rule: Rule = { parts: [...parts], separator, note, group_ids: [...groups] };
  const asked = useNames(rule);
  const found = asked.data;
  const go = () => void send("post", "/arrange/names", rule).then((took) => took && onDone());
  const left = partNames.filter(({ id }) => !parts.includes(id));
  const nameOf = (part: Part) => partNames.find(({ id }) => id === part)!.name;
  return (
    <>
      <S.Say>
        A name is{" "}
        {parts.map((part, at) => (
          <span key={part}>
            {at > 0 && " and "}
            <b>{nameOf(part)}</b>
            {parts.length > 1 && (
              <TextButton
                aria-label={`Leave out ${nameOf(part)}`}
                onPress={() => setParts(parts.filter((one) => one !== part))}
              >
                ×
              </TextButton>
            )}
          </span>
        ))}
        {left.length > 0 && (
          <>
            {" "}
            and{" "}
            <Choice
              label="Further part of a name"
              value=""
              options={[{ id: "", name: "…" }, ...left]}
              inline
              onChange={(part) => part !== "" && setParts([...parts, part as Part])}
            />
          </>
        )}
        , parted by{" "}
        <Blank
          label="What parts a name"
          value={separator}
          onCommit={(text) => {
            setSeparator(text);
            return true;
          }}
        />
        {parts.includes("note") && (
          <>
            ; the note is{" "}
            <Blank
              label="The note in a name"
              value={note}
              placeholder="a word"
              onCommit={(text) => {
                setNote(text);
                return true;
              }}
            />
          </>
        )}
        .
      </S.Say>
      {!found && (
        <p>
          <NotYet of={asked}>Making the names …</NotYet>
        </p>
      )}
      <S.Lines aria-label="Names">
        {found?.names.slice(0, shownNames).map((one) => (
          <li key={one.group_id}>
            {one.before} → <b>{one.after}</b> {one.refused && <S.Wrong>{one.refused}</S.Wrong>}
          </li>
        ))}
        {found && found.names.length > shownNames && (
          <li>… and {number(found.names.length - shownNames)} more</li>
        )}
      </S.Lines>
      <Foot>
        <Button onPress={onDone}>Leave them</Button>
        <MainButton isDisabled={!found?.changes} onPress={go}>
          Name {plural(found?.changes ?? 0, "group")}
        </MainButton>
      </Foot>
    </>
  );
}

function useNames(rule: Rule) {
  const { id, summary } = usePlan();
  const body = useSettled(JSON.stringify(rule), settleMilliseconds);
  return useQuery({
    queryKey: ["names by rule", id, summary.revision, body],
    queryFn: () =>
      taken<Schemas["NamesView"]>(
        client.POST("/api/plans/{plan_id}/arrange/names/look", {
          params: { path: { plan_id: id } },
          body: JSON.parse(body) as Rule,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
  });
}
