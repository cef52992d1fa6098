import type { Schemas } from "../../../data/client";
import { usePlan } from "../../../data/plan";
import { usePlanChange } from "../../../data/usePlanChange";

export type Style = Required<Schemas["ReportStyleValues"]>;

/** The plan's own style of its sheet, and what changes some of it. */
export function useStyle(): [Style, (some: Partial<Style>) => Promise<boolean>] {
  const { summary } = usePlan();
  const send = usePlanChange();
  const style = summary.own.report_style as Style;
  return [style, (some) => send("patch", "/own", { report_style: { ...style, ...some } })];
}
