import { money, number, percent } from "../../parts/format";

/** The rule behind the ceilings, in a few words. */
export function ruleWords(rule: string, value: number | null): string {
  if (value === null || rule === "break_even") return "breaking even";
  if (rule === "profit_share") return `your ${percent(value, 2)} profit share`;
  if (rule === "cost_per_customer") return `${money(value)} a customer`;
  if (rule === "return_on_spend") return `your return of ${number(value, 2)} on ad spend`;
  return `your ${percent(value, 2)} cost of sale`;
}
