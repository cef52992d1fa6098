import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, taken, uploadOf, type Schemas } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanQuery } from "../../data/usePlanQuery";
import { useSaying } from "../../data/saying";
import { MainButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Sentence } from "../../parts/Sentence";
import { FilePick } from "../../parts/FilePick";
import { ItemsAway } from "../../parts/TakeAway";
import { money, number, plural } from "../../parts/format";
import * as S from "./HandOver.styles";

type View = Schemas["AccountFileView"];
type Role = keyof View["columns"] & string;

const roles: { id: Role; name: string }[] = [
  { id: "keyword", name: "keyword" },
  { id: "match", name: "match type" },
  { id: "bid", name: "bid" },
  { id: "run", name: "whether it runs" },
];
const none = "none";
const ending = [".csv", ".tsv", ".txt", "text/csv"];

/** A real account's file: brought in as it is, held against the plan, written back in its shape. */
export function AccountFile() {
  const { id } = usePlan();
  const queries = useQueryClient();
  const { complain } = useSaying();
  const [reply, setReply] = useState<View | null>(null);
  const held = usePlanQuery("/hand-over/account").data as View | null | undefined;
  const path = { params: { path: { plan_id: id } } };
  const attempt = async (work: () => Promise<void>) => {
    try {
      await work();
    } catch (error) {
      complain(error);
    }
  };
  const again = () => queries.invalidateQueries({ queryKey: ["/hand-over/account", id] });
  const bring = (chosen: File) =>
    attempt(async () => {
      const sent = { ...path, ...uploadOf(chosen) };
      await taken(client.POST("/api/plans/{plan_id}/hand-over/account", sent));
      setReply(null);
      await again();
    });
  const check = (chosen: File) =>
    attempt(async () => {
      const sent = { ...path, ...uploadOf(chosen) };
      setReply(
        await taken<View>(client.POST("/api/plans/{plan_id}/hand-over/account/reply", sent)),
      );
    });
  const assign = (view: View, role: Role, at: string) =>
    attempt(async () => {
      const others = Object.entries(view.columns).filter(([held]) => held !== role);
      const chosen = at === none ? [] : [[role, Number(at)] as const];
      const columns = Object.fromEntries([...others, ...chosen]) as View["columns"];
      await taken(
        client.PUT("/api/plans/{plan_id}/hand-over/account/columns", {
          ...path,
          body: { columns },
        }),
      );
      await again();
    });
  return (
    <S.Shelf>
      <p>
        A file of the account as your platform wrote it comes in with every column, and only what
        changes goes back: the same columns, the same order, its own row ids.{" "}
        <FilePick apart accept={ending} onFile={(one) => void bring(one)}>
          bring in a file …
        </FilePick>
      </p>
      {held && (
        <>
          <Sentence>
            <b>{held.name}</b>, {plural(held.rows, "row")}:{" "}
            {roles.map((role) => (
              <span key={role.id}>
                {role.name} in{" "}
                <Choice
                  label={`Column of ${role.name}`}
                  inline
                  value={String(held.columns[role.id] ?? none)}
                  options={[
                    { id: none, name: "no column" },
                    ...held.headings.map((heading, at) => ({
                      id: String(at),
                      name: heading || `column ${number(at + 1)}`,
                    })),
                  ]}
                  onChange={(at) => void assign(held, role.id, at)}
                />
                {"; "}
              </span>
            ))}
          </Sentence>
          <p>
            {plural(held.changed, "row")} change, {number(held.same)} are as planned,{" "}
            {number(held.strangers)} the plan says nothing of
            {held.stranger_names.length > 0 && ` (${held.stranger_names.slice(0, 3).join(", ")} …)`}
            , {number(held.missing)} of the plan are in no row.
          </p>
          <p>
            <MainButton
              isDisabled={held.changed === 0}
              onPress={() => window.location.assign(`/api/plans/${id}/hand-over/account/changes`)}
            >
              take the changed rows
            </MainButton>{" "}
            <FilePick apart accept={ending} onFile={(one) => void check(one)}>
              did it take? read a fresh file …
            </FilePick>
          </p>
          {reply && (
            <p role="status">
              {reply.changed === 0
                ? `It took: all ${number(reply.same)} rows are as planned.`
                : `${plural(reply.changed, "row")} of ${reply.name} did not take; ${number(reply.same)} did.`}
            </p>
          )}
          <Lines view={reply ?? held} />
        </>
      )}
    </S.Shelf>
  );
}

type LinesProps = { view: View };

/** Rows that are not as planned: as they are, and as they are to be. */
function Lines({ view }: LinesProps) {
  if (view.changes.length === 0) return null;
  const runs = (value: boolean | null) => (value ? "runs" : "rests");
  return (
    <>
      <ItemsAway
        label="Rows that change"
        items={view.changes}
        columns={{
          row: (one) => one.row,
          keyword: (one) => one.text,
          match: (one) => one.match,
          bid: (one) => one.bid,
          "planned bid": (one) => one.planned_bid,
        }}
      />
      <S.Rows aria-label="Rows that change">
        <tbody>
          {view.changes.map((one) => (
            <tr key={one.row}>
              <td>row {number(one.row)}</td>
              <th scope="row">{one.text}</th>
              <td>{one.match}</td>
              <td>
                {one.planned_bid !== null && (
                  <span>
                    bid <s>{money(one.bid)}</s> <b>{money(one.planned_bid)}</b>
                  </span>
                )}
                {one.runs !== null && (
                  <span>
                    <s>{runs(one.runs)}</s> <b>{runs(one.planned_runs)}</b>
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </S.Rows>
    </>
  );
}
