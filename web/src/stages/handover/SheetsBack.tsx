import { useState } from "react";
import { client, taken, uploadOf, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { usePlanChange } from "../../data/usePlanChange";
import { MainButton, TextButton } from "../../parts/Button";
import { FilePick } from "../../parts/FilePick";
import { number, plural } from "../../parts/format";
import { ChangedRows } from "./ChangedRows";
import * as S from "./HandOver.styles";

type Found = Schemas["ReadBack"];

/** An upload sheet that comes back from a spreadsheet or a person, held against the plan. */
export function useSheetsBack() {
  const { id } = usePlan();
  const { complain } = useSaying();
  const [found, setFound] = useState<Found | null>(null);
  const read = (chosen: File) => {
    const sent = { params: { path: { plan_id: id } }, ...uploadOf(chosen) };
    taken<Found>(client.POST("/api/plans/{plan_id}/hand-over/back", sent)).then(setFound, complain);
  };
  const chooser = (
    <FilePick accept={[".csv", ".tsv", ".xlsx"]} onFile={read}>
      read a sheet back …
    </FilePick>
  );
  return { chooser, held: found && <Held found={found} onAway={() => setFound(null)} /> };
}

type Props = { found: Found; onAway: () => void };

function Held({ found, onAway }: Props) {
  const send = usePlanChange();
  const bids = Object.keys(found.bids).length;
  const changes = found.changes.length + found.more;
  const take = async () => {
    if (await send("post", "/hand-over/back/bids", { bids: found.bids })) onAway();
  };
  return (
    <S.Shelf tabIndex={0} role="region" aria-label="What came back">
      <p role="status">
        <b>{found.name}</b>:{" "}
        {found.sheets.map((one) => (
          <span key={one.sheet}>
            {one.sheet}: {plural(one.same, "row")} as in the plan
            {one.absent > 0 && `, ${number(one.absent)} of the plan are not in it`}
            {one.refused.length > 0 && `, not read: ${one.refused.join("; ")}`}.{" "}
          </span>
        ))}
        {changes === 0
          ? "Nothing in it is otherwise than the plan."
          : `${plural(changes, "row")} say otherwise:`}{" "}
        {bids > 0 && (
          <MainButton onPress={() => void take()}>take over {plural(bids, "bid")}</MainButton>
        )}{" "}
        <TextButton onPress={onAway}>put it away</TextButton>
      </p>
      <ChangedRows changes={found.changes} />
      {found.more > 0 && <p>… and {number(found.more)} more.</p>}
    </S.Shelf>
  );
}
