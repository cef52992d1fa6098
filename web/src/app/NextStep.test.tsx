import { screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { showOnPlan } from "../testing-plan";
import { summaryOf } from "../testing-summary";
import { sheetOf } from "../testing-sheet";
import { beginPath, stepLeft } from "./firstPath";
import { NextStep } from "./NextStep";

const usual = summaryOf(1);
const blank = {
  ...usual,
  brief: { ...usual.brief, not_entered: ["sale_value", "monthly_spend", "rate_low"] },
  trail: { ...usual.trail, keywords: 0, kept: 0, groups: 0, hand_overs: 0 },
};
const answers = { "GET ": () => ({ body: { summary: blank, sheet: sheetOf([]) } }) };

it("asks for the first thing that is left, and for nothing once all is done", () => {
  expect(stepLeft(blank)).toBe(0);
  const entered = { ...blank, brief: { ...blank.brief, not_entered: ["rate_low"] } };
  expect(stepLeft(entered)).toBe(1);
  expect(stepLeft({ ...entered, trail: { ...blank.trail, keywords: 9 } })).toBe(2);
  const done = { ...blank.trail, keywords: 9, kept: 2, groups: 1, hand_overs: 1 };
  expect(stepLeft({ ...entered, trail: done })).toBe(-1);
});

it("stands only in plans that were begun by hand, and steps aside when told to", async () => {
  await showOnPlan(<NextStep />, answers);
  expect(screen.queryByRole("region", { name: "What to do next" })).toBeNull();
});

it("is a sentence with the way there, until the planner knows it", async () => {
  beginPath(1);
  await showOnPlan(<NextStep />, answers);
  const band = await screen.findByRole("region", { name: "What to do next" });
  expect(band.textContent).toContain("1 of 5, Brief: Say what a sale is worth");
  await userEvent.click(screen.getByRole("button", { name: "I know my way" }));
  expect(screen.queryByRole("region", { name: "What to do next" })).toBeNull();
});
