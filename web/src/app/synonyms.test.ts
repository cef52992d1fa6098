// @vitest-environment node
import { alsoSaid, isMeant } from "./synonyms";

const found = (name: string, question: string) => isMeant(`${name} ${alsoSaid(name)}`, question);

it("finds a command by its own words in any order", () => {
  expect(found("Show or hide the workings", "hide workings")).toBe(true);
  expect(found("Show or hide the workings", "workings sh")).toBe(true);
  expect(found("Show or hide the workings", "bids")).toBe(false);
});

it("finds a command by what the trade calls it", () => {
  expect(found("Go to Hand over", "export")).toBe(true);
  expect(found("Block a word …", "negative")).toBe(true);
  expect(found("Light: lamp", "dark mode")).toBe(true);
  expect(found("How sure it is", "forecast")).toBe(true);
  expect(found("Undo", "export")).toBe(false);
});

it("takes an empty question for everything", () => {
  expect(found("Undo", "")).toBe(true);
});
