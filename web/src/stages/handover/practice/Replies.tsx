import { useMemo } from "react";
import type { Schemas } from "../../../data/client";
import { ReadGrid } from "../../../parts/ReadGrid";
import type { Column } from "../../../parts/column";
import { number, plural } from "../../../parts/format";
import * as S from "./Practice.styles";

type Sending = Schemas["SendingItem"];
type Reply = Schemas["ReplyItem"];

/** The reply sheet: what was refused on top, each with which, expected, got, where. */
export function Replies({ sending }: { sending: Sending | null }) {
  const replies = useMemo(() => sending?.replies ?? [], [sending]);
  const columns = useMemo(() => replyColumns(replies), [replies]);
  if (sending === null)
    return <S.Quiet>Nothing was sent yet: the reply comes row by row once it is.</S.Quiet>;
  const { differs } = sending;
  return (
    <>
      <S.Summary>
        {new Date(sending.at).toLocaleString()}:{" "}
        <b data-state="refused">{number(sending.refused)} refused</b>, {number(sending.warned)}{" "}
        warned of, {number(sending.taken)} taken.{" "}
        {sending.state === "cut short" && <S.Rose>Cut short: {sending.message}</S.Rose>}
        {differs === null && sending.state !== "cut short" && "It was not read back yet."}
        {differs !== null &&
          (differs.length === 0
            ? "Read back: every field stands as in the plan."
            : `Read back: ${plural(differs.length, "field")} not as in the plan, first ${differs[0]!.name}${differs[0]!.field ? `, ${differs[0]!.field}: “${differs[0]!.wanted}” wanted, “${differs[0]!.stands}” stands` : differs[0]!.stands ? ": there, and not in the plan" : ": not there"}.`)}
        {sending.more > 0 && ` ${number(sending.more)} more rows were taken.`}
      </S.Summary>
      <ReadGrid
        label="The reply sheet"
        columns={columns}
        count={replies.length}
        empty="No row had to be sent."
      />
    </>
  );
}

function replyColumns(replies: readonly Reply[]): Column[] {
  const of = (id: keyof Reply, head: string, width: string): Column => ({
    ...{ id, head, label: head, width },
    cell: (row) => <S.Cell title={String(replies[row]![id])}>{String(replies[row]![id])}</S.Cell>,
    leaves: [{ head, value: (row) => replies[row]![id] }],
  });
  return [
    {
      ...{ id: "state", head: "answer", label: "answer", width: "84px" },
      cell: (row) => <S.State data-state={replies[row]!.state}>{replies[row]!.state}</S.State>,
      leaves: [{ head: "answer", value: (row) => replies[row]!.state }],
    },
    of("sheet", "sheet", "minmax(120px, 0.5fr)"),
    { ...of("row", "row", "56px"), align: "end" },
    of("name", "what", "minmax(160px, 1.4fr)"),
    of("message", "what it says", "minmax(330px, 3fr)"),
    of("old", "old", "minmax(50px, 0.3fr)"),
    of("new", "new", "minmax(90px, 0.9fr)"),
    of("code", "code", "minmax(90px, 0.5fr)"),
  ];
}
