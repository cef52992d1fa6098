import type { ReactNode } from "react";
import { useActions } from "../../app/actions";
import type { CallName, SheetBlock } from "../../data/client";
import { shownColumns } from "../../data/columns.generated";
import { usePlan } from "../../data/plan";
import type { Plain } from "../../parts/column";
import { CallMark } from "../../parts/CallMark";
import { Petal } from "../../parts/Petal";
import { ListAway } from "../../parts/TakeAway";
import { Whisker } from "../../parts/Whisker";
import { money, number } from "../../parts/format";
import { priceTicks, usePriceScale, type PriceScale } from "../../parts/scale";
import { called } from "../../parts/shownList";
import { valueOf, writtenOf } from "../../parts/shownColumn";
import * as S from "./Compare.styles";
import { Tinted } from "./Tinted";
import { useCalls, useSift } from "./useSift";

const way = ["learn", "unknown", "firm", "compare", "buy", "job"];
const most = 6;
const width = 120;

/** Two to six keywords side by side, on the way from learning to buying. */
export function Compare() {
  const { sheet, summary } = usePlan();
  const { rowOf } = useSift();
  const { targets, callAs } = useCalls();
  const scale = usePriceScale(sheet.figures, width);
  const rows = targets
    .slice(0, most)
    .flatMap((id) => rowOf.get(id) ?? [])
    .sort((a, b) => stage(sheet, a) - stage(sheet, b));
  const call = (name: CallName) => void callAs(name);
  useActions([
    { name: "Keep those compared", keys: ["1"], run: () => call("keep") },
    { name: "Hold those compared", keys: ["2"], run: () => call("hold") },
    { name: "Drop those compared", keys: ["3"], run: () => call("drop") },
    { name: "Block those compared", keys: ["4"], run: () => call("block") },
  ]);
  if (rows.length < 2)
    return (
      <S.Empty>
        Select two to six keywords in the list (x, or Shift with the arrows), then come here.
      </S.Empty>
    );
  const lines = linesOf(sheet, scale, summary.brief.values.currency);
  return (
    <S.Box>
      <S.Table aria-label="Keywords compared">
        <thead>
          <tr>
            <th scope="col">
              <S.Way>learning → buying</S.Way>
              <ListAway
                label="Keywords compared"
                count={rows.length}
                shown={() => ({
                  heads: ["figure", ...rows.map((row) => sheet.texts.text[row] ?? "")],
                  columns: [
                    lines.map((line) => line.name),
                    ...rows.map((row) => lines.map((line) => said(line.leaves ?? line.cell, row))),
                  ],
                })}
              />
            </th>
            {rows.map((row) => (
              <th key={row} scope="col">
                <Tinted text={sheet.texts.text[row] ?? ""} kinds={sheet.texts.kinds[row]} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.map(({ name, cell }) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {rows.map((row) => (
                <td key={row}>{cell(row)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </S.Table>
      {targets.length > most && (
        <p>
          The first {most} of {number(targets.length)} selected.
        </p>
      )}
    </S.Box>
  );
}

const said = (of: (row: number) => unknown, row: number) => {
  const value = of(row);
  return typeof value === "number" || typeof value === "string" ? value : null;
};

const stage = ({ texts }: SheetBlock, row: number) => way.indexOf(texts.intent[row] ?? "unknown");

type Line = {
  name: string;
  cell: (row: number) => ReactNode;
  /** What leaves of it, where it is drawn. */
  leaves?: (row: number) => Plain;
};

function linesOf(sheet: SheetBlock, scale: PriceScale, currency: string): readonly Line[] {
  const { texts, figures } = sheet;
  const kept = (row: number) => texts.call[row] === "keep";
  const inPlan = (row: number, text: string) => (kept(row) ? text : <i>{text}</i>);
  const ticks = priceTicks(scale);
  const drawn: Line[] = [
    {
      name: "call",
      cell: (r) => <CallMark call={texts.call[r] ?? "none"} />,
      leaves: (r) => called(texts.call[r]),
    },
    {
      name: "standing",
      cell: (r) => <Petal standing={figures.standing[r] ?? "unknown"} />,
      leaves: (r) => figures.standing[r],
    },
    {
      name: `price a click, ${currency}`,
      cell: (r) => (
        <Whisker
          scale={scale}
          ticks={ticks}
          width={width}
          low={figures.cpc_low[r]}
          median={figures.cpc_median[r]}
          high={figures.cpc_high[r]}
          ceiling={figures.ceiling[r]}
          beyond={figures.standing[r] === "beyond"}
        />
      ),
      leaves: (r) => `${money(figures.cpc_low[r])} to ${money(figures.cpc_high[r])}`,
    },
  ];
  return [...drawn, ...plainLines(sheet, inPlan)];
}

/** What is only written; what a keyword would bring leans where it is not kept. */
function plainLines(sheet: SheetBlock, inPlan: (row: number, text: string) => ReactNode): Line[] {
  return shownColumns
    .filter((column) => column.compared)
    .map((column) => {
      const written = writtenOf(sheet, column);
      const would = ["clicks", "spend", "customers"].includes(column.id);
      return {
        name: column.compared,
        cell: would ? (row) => inPlan(row, written(row)) : written,
        leaves: would ? valueOf(sheet, column) : undefined,
      };
    });
}
