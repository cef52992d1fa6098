// @vitest-environment node
import { sheetOf } from "../testing-sheet";
import type { ChangeAnswer, PlanAnswer } from "./client";
import { merged } from "./merge";

const summary = (revision: number) => ({ revision }) as PlanAnswer["summary"];
const plan: PlanAnswer = { summary: summary(4), sheet: sheetOf([{ text: "a" }, { text: "b" }]) };
const answer = (changes: Partial<ChangeAnswer>): ChangeAnswer => ({
  did: "something",
  was: 4,
  summary: summary(5),
  sheet: null,
  rows: null,
  columns: null,
  ...changes,
});

it("lays moved columns and touched rows upon the sheet, and the ids stay the same array", () => {
  const rows = sheetOf([{ text: "b", call: "keep" }]).texts;
  rows.id = [101];
  const next = merged(plan, answer({ rows, columns: { spend: [1, 2] } }))!;
  expect(next.sheet.texts.call).toEqual(["none", "keep"]);
  expect(next.sheet.figures.spend).toEqual([1, 2]);
  expect(next.sheet.texts.id).toBe(plan.sheet.texts.id);
  expect(next.summary.revision).toBe(5);
  expect(plan.sheet.texts.call).toEqual(["none", "none"]);
});

it("leaves what did not move the very same", () => {
  const next = merged(plan, answer({ columns: { spend: null } }))!;
  expect(next.sheet.figures).toBe(plan.sheet.figures);
  expect(next.sheet.texts).toBe(plan.sheet.texts);
});

it("refuses an answer laid upon another revision, unless it brings the whole sheet", () => {
  expect(merged(plan, answer({ was: 3 }))).toBeUndefined();
  const whole = sheetOf([{ text: "c" }]);
  expect(merged(plan, answer({ was: 3, sheet: whole }))!.sheet).toBe(whole);
});

it("a column that nothing changed in stays the very same array", () => {
  const rows = { ...sheetOf([{ text: "a" }]).texts, locked_bid: [1.2] };
  const next = merged(plan, answer({ rows }))!.sheet.texts;
  expect(next.call).toBe(plan.sheet.texts.call);
  expect(next.locked_bid).toEqual([1.2, null]);
});
