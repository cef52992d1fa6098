import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { client, taken, uploadOf, type Schemas } from "../../../data/client";
import { useSaying } from "../../../data/saying";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { useSettled } from "../../../parts/useSettled";
import { MainButton, TextButton } from "../../../parts/Button";
import { Choice } from "../../../parts/Choice";
import { Sheet } from "../../../parts/Sheet";
import { money, number, plural } from "../../../parts/format";
import * as A from "../Arrange.styles";

type Match = Schemas["NegativeLine"]["match"];
type Line = Schemas["ReadLine"];

const matches: { id: Match; name: string; about: string }[] = [
  { id: "phrase", name: "wherever they stand together", about: "Phrase: an unbroken run." },
  { id: "exact", name: "only as the whole search", about: "Exact." },
  { id: "broad", name: "in any order", about: "Broad: all of its words." },
];
const settleMilliseconds = 250;
const shownLines = 200;

type Props = {
  open: boolean;
  onOpen: (open: boolean) => void;
  /** Where they act at first: g and a group's id, c and a campaign's, or the whole plan. */
  start?: string;
};

/** Negatives, one a line: what each would do is said before any is added. */
export const AddSheet = ({ open, onOpen, start = "whole" }: Props) => (
  <Sheet title="Add negatives" open={open} onOpen={onOpen} width={680}>
    <Add start={start} onDone={() => onOpen(false)} />
  </Sheet>
);

function Add({ start, onDone }: { start: string; onDone: () => void }) {
  const { id, summary, sheet } = usePlan();
  const send = usePlanChange();
  const { complain } = useSaying();
  const [text, setText] = useState("");
  const [match, setMatch] = useState<Match>("phrase");
  const [where, setWhere] = useState(start);
  const [note, setNote] = useState("");
  const place = {
    campaign_id: where.startsWith("c") ? Number(where.slice(1)) : null,
    group_id: where.startsWith("g") ? Number(where.slice(1)) : null,
  };
  const lines = useLines(text, match, place);
  const good = lines.filter((line) => line.refused === "");
  const harmful = good.filter((line) => line.hurt > 0 || line.sold.length > 0);
  const taking = note.trim() ? good : good.filter((line) => !harmful.includes(line));
  const read = async (file: File | undefined) => {
    if (!file) return;
    const path = { params: { path: { plan_id: id } } };
    const answer = client.POST("/api/plans/{plan_id}/arrange/negatives/file", {
      ...path,
      ...uploadOf(file),
    });
    await taken(answer).then((found) => setText(found.text), complain);
  };
  const add = async () => {
    const items = taking.map(({ text, match, campaign_id, group_id }) => ({
      ...{ text, match, campaign_id, group_id },
    }));
    if (!(await send("post", "/arrange/negatives", { items, note, by: "hand" }))) return;
    const left = lines.filter((line) => !taking.includes(line)).map(({ line }) => line - 1);
    if (left.length === 0) onDone();
    else setText(left.map((line) => text.split(/\r?\n/)[line]).join("\n"));
  };
  const replace = (line: Line) => {
    const rows = text.split(/\r?\n/);
    const [, , ...where] = rows[line.line - 1]!.split("\t");
    rows[line.line - 1] = [line.narrower!.text, line.narrower!.match, ...where].join("\t");
    setText(rows.join("\n"));
  };
  const places = [
    { id: "whole", name: "the whole plan" },
    ...sheet.campaigns.map(({ id, name }) => ({ id: `c${id}`, name: `campaign ${name}` })),
    ...sheet.groups.map(({ id, label }) => ({ id: `g${id}`, name: `group ${label}` })),
  ];
  return (
    <>
      <A.Paste
        aria-label="Negatives, one a line"
        rows={6}
        value={text}
        placeholder={"jobs\n“free quote” for a phrase, [sash] for the very text\ncourse, broad"}
        onChange={(event) => setText(event.currentTarget.value)}
        onKeyDown={(event) => event.stopPropagation()}
      />
      <A.Line>
        <FileTrigger
          acceptedFileTypes={[".csv", ".tsv", ".txt", ".xlsx"]}
          onSelect={(files) => void read(files?.[0])}
        >
          <TextButton>from a file …</TextButton>
        </FileTrigger>
        <Choice label="How they match" value={match} options={matches} onChange={setMatch} />
        <Choice label="Where they act" value={where} options={places} onChange={setWhere} />
      </A.Line>
      {lines.length > 0 && (
        <A.Lines aria-label="What they would do">
          {lines.slice(0, shownLines).map((line) => (
            <li key={line.line}>
              <One line={line} currency={summary.brief.values.currency} />
              {line.narrower && (
                <TextButton onPress={() => replace(line)}>
                  {line.narrower.text} ({line.narrower.match}) instead
                </TextButton>
              )}
            </li>
          ))}
          {lines.length > shownLines && <li>… and {number(lines.length - shownLines)} more</li>}
        </A.Lines>
      )}
      {harmful.length > 0 && (
        <A.Line>
          <label>
            Keep {harmful.length === 1 ? "it" : "them"} all the same, because{" "}
            <input
              aria-label="Why they stand all the same"
              value={note}
              onChange={(event) => setNote(event.currentTarget.value)}
              onKeyDown={(event) => event.stopPropagation()}
            />
          </label>
        </A.Line>
      )}
      <A.Line>
        <MainButton isDisabled={taking.length === 0} onPress={() => void add()}>
          Add {plural(taking.length, "negative")}
        </MainButton>
        <A.Soft role="status">
          {lines.length > taking.length && `${number(lines.length - taking.length)} stay here`}
        </A.Soft>
      </A.Line>
    </>
  );
}

function One({ line, currency }: { line: Line; currency: string }) {
  if (line.refused)
    return (
      <span>
        line {number(line.line)}, {line.text || "nothing"}: <A.Wrong>{line.refused}</A.Wrong>
      </span>
    );
  const hurt = [...line.hurts, ...line.sold];
  return (
    <span>
      <b>{line.text}</b> <A.Soft>{line.match}</A.Soft>
      {line.where && ` in ${line.where}`}: stops {plural(line.stops, "keyword")}
      {line.terms > 0 && `, ${plural(line.terms, "past term")}`}
      {line.saves > 0 && `, saves ${money(line.saves)} ${currency} a month`}
      {hurt.length > 0 && (
        <>
          ; <A.Wrong>hurts {hurt.join(", ")}</A.Wrong>
        </>
      )}
      {line.firm && "; a firm’s name that you also keep keywords with: is the firm meant?"}{" "}
    </span>
  );
}

/** What the lines would do, a moment after the last was typed. */
function useLines(
  text: string,
  match: Match,
  place: { campaign_id: number | null; group_id: number | null },
): Line[] {
  const { id, summary } = usePlan();
  const settled = useSettled(text, settleMilliseconds);
  const body = { text: settled, match, ...place };
  const found = useQuery({
    queryKey: ["negatives read", id, summary.revision, body],
    queryFn: () =>
      taken(
        client.POST("/api/plans/{plan_id}/arrange/negatives/read", {
          params: { path: { plan_id: id } },
          body,
        }),
      ),
    enabled: settled.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
  });
  return settled.trim() === "" ? [] : (found.data?.lines ?? []);
}
