import { useMemo, useRef, useState } from "react";
import { useActions } from "../../app/actions";
import { type Schemas, type SheetBlock } from "../../data/client";
import { usePlan } from "../../data/plan";
import { usePlanChange } from "../../data/usePlanChange";
import { useSaying } from "../../data/saying";
import { Blank } from "../../parts/Blank";
import { TextButton } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { CallMark } from "../../parts/CallMark";
import { called, leaf } from "../../parts/shownList";
import type { Column } from "../../parts/column";
import { Grid, type GridHandle } from "../../parts/Grid";
import { count, money, number, percent, plural } from "../../parts/format";
import type { ArrangeView } from "./view";
import * as S from "./Arrange.styles";
import { MoveSheet } from "./MoveSheet";

type Props = { view: ArrangeView; at: number };

/** One group: its name, the page its ads lead to, and who is in it, to be moved elsewhere. */
export function GroupDetail({ view, at }: Props) {
  const { groups, campaigns } = view;
  const { sheet, summary } = usePlan();
  const send = usePlanChange();
  const { say } = useSaying();
  const [active, setActive] = useState<number | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [moving, setMoving] = useState(false);
  const grid = useRef<GridHandle>(null);
  const name = groups.name[at]!;
  const group = groups.id[at]!;
  const rows = useMemo(() => members(sheet, group), [sheet, group]);
  const columns = useMemo(
    () => columnsOf(sheet, summary.brief.values.currency),
    [sheet, summary.brief.values.currency],
  );
  const there = new Set(rows.map((row) => sheet.texts.id[row]!));
  const chosen = [...selected].filter((one) => there.has(one));
  const targets = chosen.length > 0 ? chosen : active !== null && there.has(active) ? [active] : [];
  const move = () =>
    targets.length > 0
      ? setMoving(true)
      : say("Select a keyword of the group first: arrows move, x selects.");
  useActions([
    { name: "Move the selected keywords to another group", keys: ["m"], run: move },
    { name: "Go to the group’s keywords", keys: ["n"], run: () => grid.current?.focus() },
  ]);
  const edit = (body: Schemas["GroupEdit"]) =>
    send("post", "/arrange/groups/{group_id}", body, { group_id: group });
  const words = groups.words[at] ?? [];
  const misfits = groups.least_like[at] ?? [];
  return (
    <>
      <S.About>
        <h2>
          <Blank label="Name of the group" value={name} onCommit={(text) => edit({ name: text })} />
        </h2>
        <span>
          Its ads lead to{" "}
          <Blank
            label="Landing page"
            value={groups.page[at] ?? ""}
            placeholder="a page of the site"
            onCommit={(text) => edit({ page: text })}
          />
        </span>
        <p>
          {words.length > 0 &&
            `Its main words: ${words.map(({ word, share }) => `${word} (${percent(share, 0)} of clicks)`).join(", ")}. `}
          {plural(groups.running[at] ?? 0, "keyword")} run{groups.running[at] === 1 && "s"}
          {groups.likeness[at] != null && `; alike to ${percent(groups.likeness[at], 0)}`}.
        </p>
        {misfits.length > 0 && (
          <p>
            Would fit better elsewhere:{" "}
            {misfits.map((one) => (
              <span key={one.id}>
                {one.text}{" "}
                <TextButton
                  onPress={() =>
                    void send("post", "/arrange/move", {
                      ids: [one.id],
                      group_id: one.group_id,
                      group: "",
                    })
                  }
                >
                  to {one.group}
                </TextButton>{" "}
              </span>
            ))}
          </p>
        )}
        <S.Line>
          <Choice
            label="Campaign of the group"
            value={String(groups.campaign_id[at])}
            options={campaigns.map((one) => ({ id: String(one.id), name: `in ${one.name}` }))}
            inline
            onChange={(to) =>
              void send("post", "/arrange/groups/move", { ids: [group], campaign_id: Number(to) })
            }
          />
          <Choice
            label="Merge the group into another"
            value=""
            options={[
              { id: "", name: "merge into …" },
              ...groups.id.flatMap((one, row) =>
                one === group ? [] : [{ id: String(one), name: groups.label[row]! }],
              ),
            ]}
            inline
            onChange={(to) =>
              to !== "" &&
              void send("post", "/arrange/groups/merge", { ids: [group], into: Number(to) })
            }
          />
        </S.Line>
        <span>
          <TextButton onPress={move}>
            move {targets.length > 0 ? plural(targets.length, "keyword") : "keywords"} …
          </TextButton>{" "}
          <kbd>m</kbd>
        </span>
      </S.About>
      <Grid
        label={`Keywords of ${name}`}
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={(row) => sheet.texts.id[row]!}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        look={(row) => ({ dim: sheet.texts.call[row] !== "keep" })}
        onEnter={move}
        empty="No keyword is in this group."
      />
      <MoveSheet
        open={moving}
        onOpen={setMoving}
        ids={targets}
        from={groups.label[at]!}
        groups={groups.label}
        onMoved={() => setSelected(new Set())}
      />
    </>
  );
}

/** Who is in a group: the kept first, then by what they spend or would. */
function members({ texts, figures }: SheetBlock, group: number): number[] {
  const rows = texts.group_id.flatMap((one, row) => (one === group ? [row] : []));
  const kept = (row: number) => Number(texts.call[row] === "keep");
  const spend = (row: number) => figures.spend[row] ?? 0;
  return rows.sort((a, b) => kept(b) - kept(a) || spend(b) - spend(a) || a - b);
}

function columnsOf({ texts, figures }: SheetBlock, currency: string): Column[] {
  const kept = (row: number) => texts.call[row] === "keep";
  return [
    {
      id: "call",
      head: "Call",
      label: "call",
      width: "40px",
      leaves: leaf("call", (row) => called(texts.call[row])),
      cell: (row) => <CallMark call={texts.call[row] ?? "none"} />,
    },
    {
      id: "keyword",
      head: "Keyword",
      label: "keyword",
      width: "minmax(150px, 1fr)",
      leaves: [
        { head: "keyword", value: (row) => texts.text[row] },
        { head: "match", value: (row) => texts.match[row] },
      ],
      cell: (row) => (
        <span title={texts.text[row]}>
          {texts.text[row]} {texts.match[row] !== "exact" && <S.Soft>{texts.match[row]}</S.Soft>}
        </span>
      ),
    },
    {
      id: "searches",
      head: "Searches",
      label: "searches a month",
      width: "70px",
      align: "end",
      cell: (row) => number(figures.searches[row]),
    },
    {
      id: "customers",
      head: "Customers",
      label: "customers",
      width: "76px",
      align: "end",
      cell: (row) => (kept(row) ? count(figures.customers[row]) : ""),
    },
    {
      id: "spend",
      head: `Spend, ${currency}`,
      label: "spend",
      width: "92px",
      align: "end",
      cell: (row) => (kept(row) ? money(figures.spend[row]) : ""),
    },
  ];
}
