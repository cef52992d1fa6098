import type { Schemas } from "../../../data/client";
import type { Asked } from "../../../app/asked";
import { Traced } from "../../../parts/Traced";
import type { Column } from "../../../parts/column";
import { money, number } from "../../../parts/format";
import { leaf } from "../../../parts/shownList";
import { dayOf } from "../../../parts/days";
import * as A from "../Arrange.styles";

type Negatives = Schemas["NegativesView"]["negatives"];
type Next = Schemas["NegativesView"]["to_block"];

type Ask = (asked: Asked) => void;

const makers: Record<string, string> = {
  hand: "by hand",
  advice: "proposed",
  block: "by a call",
  word: "by word",
  file: "file",
};

/** The plan's negatives: what, where, what it does, by whom. */
export function negativeColumns(all: Negatives, currency: string, ask: Ask): Column[] {
  const of = (at: number) => all[at]!;
  return [
    {
      id: "text",
      head: "Negative",
      label: "negative",
      width: "minmax(120px, 1fr)",
      leaves: [
        { head: "negative", value: (at) => of(at).text },
        { head: "match", value: (at) => of(at).match },
      ],
      cell: (at) => (
        <span title={of(at).text}>
          {of(at).text} <A.Soft>{of(at).match}</A.Soft>
        </span>
      ),
    },
    {
      id: "where",
      head: "Acts in",
      label: "acts in",
      width: "minmax(76px, 0.5fr)",
      leaves: leaf("acts in", (at) => of(at).where || "the whole plan"),
      cell: (at) => <A.Soft title={of(at).where}>{of(at).where || "the whole plan"}</A.Soft>,
    },
    {
      id: "stops",
      head: "Stops",
      label: "keywords it stops",
      width: "56px",
      align: "end",
      cell: (at) => number(of(at).stops),
    },
    {
      id: "saves",
      head: `Saves, ${currency}`,
      label: `saves a month at least, ${currency}`,
      width: "84px",
      align: "end",
      leaves: leaf(`saves a month at least, ${currency}`, (at) => of(at).saves),
      cell: (at) => (
        <Traced onPress={() => ask({ kind: "negative", id: of(at).id })}>
          {of(at).saves > 0 ? money(of(at).saves) : "–"}
        </Traced>
      ),
    },
    {
      id: "hurts",
      head: "Hurts",
      label: "kept keywords and sold terms it stops",
      width: "84px",
      leaves: leaf("kept keywords and sold terms it stops", (at) =>
        [...of(at).hurts, ...of(at).sold].join("; "),
      ),
      cell: (at) => {
        const { hurt, sold } = of(at);
        if (hurt === 0 && sold.length === 0) return "";
        return (
          <A.Wrong>{hurt > 0 ? `${number(hurt)} kept` : `${number(sold.length)} sold`}</A.Wrong>
        );
      },
    },
    {
      id: "by",
      head: "Made",
      label: "made by",
      width: "76px",
      leaves: [
        { head: "made by", value: (at) => of(at).by },
        { head: "made", value: (at) => of(at).at },
        { head: "note", value: (at) => of(at).note },
      ],
      cell: (at) => <A.Soft title={dayOf(of(at).at)}>{makers[of(at).by] ?? of(at).by}</A.Soft>,
    },
  ];
}

const sources: Record<Next[number]["source"], string> = {
  dropped: "dropped, yet shown",
  warning: "a warning word",
  past: "never sold",
};

/** What to block next: in which form, why, what it saves. */
export function nextColumns(next: Next, currency: string, ask: Ask): Column[] {
  const of = (at: number) => next[at]!;
  return [
    {
      id: "text",
      head: "Block",
      label: "block",
      width: "minmax(110px, 1fr)",
      leaves: [
        { head: "negative", value: (at) => of(at).text },
        { head: "match", value: (at) => of(at).match },
      ],
      cell: (at) => (
        <span title={of(at).texts.join(", ")}>
          {of(at).text} <A.Soft>{of(at).match}</A.Soft>
        </span>
      ),
    },
    {
      id: "source",
      head: "Because",
      label: "because",
      width: "152px",
      cell: (at) => sources[of(at).source],
    },
    {
      id: "stops",
      head: "Stops",
      label: "keywords it stops",
      width: "52px",
      align: "end",
      cell: (at) => number(of(at).stops),
    },
    {
      id: "uncalled",
      head: (
        <>
          Not yet
          <br />
          called
        </>
      ),
      label: "of them not yet called",
      width: "62px",
      align: "end",
      leaves: leaf("of them not yet called", (at) => of(at).uncalled),
      cell: (at) => (of(at).uncalled > 0 ? number(of(at).uncalled) : "–"),
    },
    {
      id: "saves",
      head: `Saves, ${currency}`,
      label: `saves a month at least, ${currency}`,
      width: "84px",
      align: "end",
      leaves: leaf(`saves a month at least, ${currency}`, (at) => of(at).saves),
      cell: (at) => (
        <Traced onPress={() => ask({ kind: "block", text: of(at).text, match: of(at).match })}>
          {money(of(at).saves)}
        </Traced>
      ),
    },
  ];
}
