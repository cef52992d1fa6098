import { useEffect, useMemo, useState, type Ref, type RefObject } from "react";
import { useActions } from "../../../app/actions";
import { useAsked, useAsking } from "../../../app/asked";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";
import { useSaying } from "../../../data/saying";
import type { Sort } from "../../../parts/column";
import { Grid, type Divider, type GridHandle } from "../../../parts/Grid";
import { usePriceScale } from "../../../parts/scale";
import { Line } from "./Line";
import { listColumns, rowStamps, whiskerWidth } from "./columns";
import { chosenColumns, useColumnPlan } from "./columnPlan";
import { useCalls, useSift } from "../useSift";
import { lineBefore } from "./order";
import { sectionHead, useParted } from "./parted";

type Props = { handle: Ref<GridHandle>; grid: RefObject<GridHandle | null> };

/** The list: every keyword in order of headroom, the line across it. */
export function List({ handle, grid }: Props) {
  const { summary, sheet, changeBrief } = usePlan();
  const send = usePlanChange();
  const { setActive } = useAsking();
  const { active } = useAsked();
  const { say } = useSaying();
  const { shown, idOf, selected, setSelected } = useSift();
  const { callAs } = useCalls();
  const [sort, setSort] = useState<Sort>({ by: "headroom", down: true });
  const { plan } = useColumnPlan();
  const { values, worth } = summary.brief;
  const limit = values.max_cpc ?? worth.ceiling;
  const byPrice = sort.by === "price";
  const { parted, rows, idsOf } = useParted(shown, sort);
  const sectioned = parted !== "no";
  const before = useMemo(
    () => (sectioned ? null : lineBefore(sheet, rows.rows, sort, limit)),
    [sheet, rows.rows, sort, limit, sectioned],
  );
  const scale = usePriceScale(sheet.figures, whiskerWidth);
  const columns = useMemo(
    () => chosenColumns(listColumns(sheet, scale, values.currency), plan),
    [sheet, scale, values.currency, plan],
  );
  const look = [scale.domain(), values.currency, columns.map(({ id }) => id)].join();
  const stamp = useMemo(() => rowStamps(sheet, look), [sheet, look]);
  useEffect(() => {
    if (byPrice) grid.current?.showDivider();
  }, [byPrice, grid]);

  /** In order of price the line is the highest price; of headroom, the rule behind the ceilings. */
  const movedLine = (to: number) => {
    const place = Math.max(1, Math.min(rows.rows.length, to));
    // past the last row there is no highest price
    if (byPrice && place >= rows.rows.length) return { brief: { max_cpc: null } };
    return { line: idOf(rows.rows[place - 1] ?? 0), by: byPrice ? "price" : "headroom" } as const;
  };
  const moveLine = (to: number) => {
    const { brief, line, by } = movedLine(to);
    if (brief) {
      if (brief.max_cpc !== values.max_cpc) void changeBrief(brief);
    } else if (line !== undefined) void send("post", "/sift/line", { id: line, by });
  };
  const nudge = (by: number) => {
    if (before === null) say("The line is drawn in order of headroom or of price.");
    else {
      moveLine(before + by);
      grid.current?.showDivider();
    }
  };
  useActions([
    { name: "The line: let one keyword more in", keys: ["]"], run: () => nudge(1) },
    { name: "The line: one keyword fewer", keys: ["["], run: () => nudge(-1) },
    { name: "In order of headroom", run: () => setSort({ by: "headroom", down: true }) },
    { name: "In order of price", run: () => setSort({ by: "price", down: false }) },
    {
      name: "Select all that is shown",
      keys: ["Ctrl+a"],
      run: () => setSelected(new Set(rows.rows.map(idOf))),
    },
  ]);

  const line = before !== null && (
    <Line
      byPrice={byPrice}
      limit={limit}
      own={values.max_cpc !== null}
      beyond={rows.rows.length - before}
      moved={(by) => movedLine(before + by)}
      onMove={(by) => moveLine(before + by)}
      onFree={() => void changeBrief({ max_cpc: null })}
    />
  );
  const dividers: Divider[] = sectioned
    ? rows.sections.map((section) =>
        sectionHead(
          section,
          parted === "themes" ? (call) => void callAs(call, idsOf(section)) : undefined,
        ),
      )
    : before === null
      ? []
      : [{ id: "line", before, content: line }];
  return (
    <Grid
      label="Keywords"
      handle={handle}
      columns={columns}
      rows={rows.rows}
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
      stamp={stamp}
      dividers={dividers}
      empty={
        sheet.texts.id.length === 0
          ? "No keywords yet. Bring them in under Gather (g g), or open the sample from the plan list."
          : "No keyword fits this filter."
      }
    />
  );
}
