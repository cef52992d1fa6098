import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useDesk } from "../../app/desk";
import { useKeys } from "../../app/keys";
import type { CallName, SheetBlock } from "../../data/client";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";
import { Choice } from "../../parts/Choice";
import { Grid, type GridHandle, type Sort } from "../../parts/Grid";
import { Top } from "../../parts/Screen";
import { plural } from "../../parts/format";
import { usePriceScale } from "../../parts/scale";
import { CallBar } from "./CallBar";
import { Line } from "./Line";
import * as S from "./Sift.styles";
import { ladderColumns, whiskerWidth } from "./columns";
import { everything, filtered, lineBefore, ordered, priceAt, type Filter } from "./order";

const callOptions = [
  { id: "any", name: "call: any" },
  { id: "none", name: "not yet called" },
  { id: "keep", name: "keep" },
  { id: "hold", name: "hold" },
  { id: "drop", name: "drop" },
  { id: "block", name: "block" },
] as const;

const standingOptions = [
  { id: "any", name: "standing: any" },
  { id: "in_reach", name: "in reach" },
  { id: "stretch", name: "stretch" },
  { id: "beyond", name: "beyond" },
] as const;

/** The ladder: every keyword in order of headroom, the line across it, one judgement each. */
export function Sift() {
  const { frame, sheet, call, changeBrief } = usePlan();
  const { active, setActive } = useDesk();
  const { say } = useSaying();
  const [filter, setFilter] = useState<Filter>(everything);
  const [sort, setSort] = useState<Sort>({ by: "headroom", down: true });
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const [last, setLast] = useState<CallName | null>(null);
  const grid = useRef<GridHandle>(null);
  const search = useRef<HTMLInputElement>(null);

  const rows = useOrder(sheet, filter, sort);
  const idOf = useCallback((row: number) => sheet.texts.id[row]!, [sheet.texts.id]);
  const { values, worth } = frame.brief;
  const limit = values.max_cpc ?? worth.ceiling;
  const before = useMemo(() => lineBefore(sheet, rows, sort, limit), [sheet, rows, sort, limit]);
  const scale = usePriceScale(sheet.figures, whiskerWidth);
  const columns = useMemo(
    () => ladderColumns(sheet, scale, values.currency),
    [sheet, scale, values.currency],
  );
  const byPrice = sort.by === "price";

  useEffect(() => grid.current?.focus(), []);
  useEffect(() => {
    if (byPrice) grid.current?.showDivider();
  }, [byPrice]);

  const judge = (name: CallName) => {
    const shown = new Set(rows.map(idOf));
    const ids =
      selected.size > 0
        ? [...selected].filter((id) => shown.has(id))
        : active === null
          ? []
          : [active];
    if (ids.length === 0) {
      say("Select a keyword first: arrows move, x selects.");
      return;
    }
    setLast(name);
    void call(ids, name).then((took) => {
      if (took && selected.size === 0) grid.current?.move(1);
      if (took) setSelected(new Set());
    });
  };
  const moveLine = (to: number) => {
    if (!byPrice) {
      setSort({ by: "price", down: false });
      say("The line moves in order of price: sorted by price.");
      return;
    }
    const price = priceAt(sheet, rows, Math.max(1, Math.min(rows.length, to)));
    if (price !== values.max_cpc) void changeBrief({ max_cpc: price });
  };
  useKeys({
    j: () => grid.current?.move(1),
    k: () => grid.current?.move(-1),
    ArrowDown: () => grid.current?.move(1),
    ArrowUp: () => grid.current?.move(-1),
    "0": () => judge("none"),
    "1": () => judge("keep"),
    "2": () => judge("hold"),
    "3": () => judge("drop"),
    "4": () => judge("block"),
    ".": () => (last ? judge(last) : say("No call yet to repeat.")),
    "/": () => search.current?.focus(),
    "Ctrl+a": () => setSelected(new Set(rows.map(idOf))),
    "[": () => before !== null && moveLine(before - 1),
    "]": () => before !== null && moveLine(before + 1),
  });

  return (
    <>
      <Top>
        <h1>Sift</h1>
        <S.Search
          ref={search}
          aria-label="Filter: words in, -words out"
          placeholder="/  words in, -words out"
          value={filter.text}
          onChange={(event) => setFilter({ ...filter, text: event.currentTarget.value })}
          onKeyDown={(event) => {
            if (event.key === "Escape") setFilter({ ...filter, text: "" });
            if (event.key === "Escape" || event.key === "Enter" || event.key === "ArrowDown")
              grid.current?.focus();
          }}
        />
        <Choice
          label="Filter by call"
          value={filter.call}
          options={callOptions}
          onChange={(value) => setFilter({ ...filter, call: value })}
        />
        <Choice
          label="Filter by standing"
          value={filter.standing}
          options={standingOptions}
          onChange={(value) => setFilter({ ...filter, standing: value })}
        />
        <CallBar count={selected.size || (active === null ? 0 : 1)} onCall={judge} />
        <S.Count>
          {rows.length === sheet.texts.id.length
            ? plural(rows.length, "keyword")
            : `${rows.length.toLocaleString()} of ${plural(sheet.texts.id.length, "keyword")}`}
        </S.Count>
      </Top>
      <Grid
        label="Keywords"
        handle={grid}
        columns={columns}
        rows={rows}
        idOf={idOf}
        active={active}
        onActive={setActive}
        selected={selected}
        onSelected={setSelected}
        sort={sort}
        onSort={setSort}
        look={(row) => ({
          dim: sheet.figures.standing[row] === "beyond",
          struck: ["drop", "block"].includes(sheet.texts.call[row] ?? ""),
        })}
        divider={
          before === null
            ? null
            : {
                before,
                content: (
                  <Line
                    byPrice={byPrice}
                    limit={limit}
                    own={values.max_cpc !== null}
                    beyond={rows.length - before}
                    onMove={(by) => moveLine(before + by)}
                    onFree={() => void changeBrief({ max_cpc: null })}
                  />
                ),
              }
        }
        empty={
          sheet.texts.id.length === 0
            ? "No keywords yet. Bring them in under Gather (g g), or open the sample from the plan list."
            : "No keyword fits this filter."
        }
      />
    </>
  );
}

/** The order rows are shown in. It changes when asked for, never because of a call. */
function useOrder(sheet: SheetBlock, filter: Filter, sort: Sort): number[] {
  const { id } = sheet.texts;
  // What a call moves (figures of money, calls) must not make rows jump: the order is taken
  // when the filter, the sort, the keywords or the ceilings change.
  const { ceiling, cpc_at_line } = sheet.figures;
  return useMemo(
    () => ordered(sheet, filtered(sheet, filter), sort),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the sheet itself is left out on purpose
    [id, filter, sort, ceiling, cpc_at_line],
  );
}
