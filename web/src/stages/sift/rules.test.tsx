import { giveSizes } from "../../testing-layout";
import { fireEvent, screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, showOnPlan } from "../../testing-plan";
import { summaryOf } from "../../testing-summary";
import { sheetOf } from "../../testing-sheet";
import { Sift } from "./Sift";

const sheet = sheetOf([
  { text: "sash window repair", call: "none", headroom: 2, spend: 5 },
  { text: "sash window jobs", call: "none", headroom: 1, spend: 9 },
]);

beforeAll(giveSizes);
beforeEach(() => localStorage.clear());

it("house rules say what they would do, and a new one is added", async () => {
  const rule = { when: [{ field: "intent", value: "job" }], call: "block", reason: "" };
  const asked = await showOnPlan(
    <Sift />,
    {
      "GET ": () => ({ body: { summary: withRules([rule]), sheet } }),
      "GET /sift/rules": () => ({
        body: {
          revision: 1,
          rules: [{ ids: [101], by_hand: 2, texts: ["sash window jobs"], words: ["jobs"] }],
        },
      }),
      "PATCH /own": () => ({ body: changeOf({ summary: withRules([rule]) }) }),
      "POST /sift/rules/apply": () => ({ body: changeOf({ did: "called" }) }),
    },
    sheet,
  );
  fireEvent.keyDown(window, { key: "u" });
  expect(
    await screen.findByText(/1 keyword: sash window jobs; negatives: jobs; 2 called by hand stay/),
  ).toBeTruthy();
  await userEvent.selectOptions(screen.getByLabelText("what"), "median price");
  await userEvent.type(screen.getByLabelText("from"), "5");
  await userEvent.click(screen.getByText("Add this rule"));
  await waitFor(() => expect(asked).toHaveLength(1));
  const { house_rules } = asked[0]!.body as { house_rules: unknown[] };
  expect(house_rules[1]).toMatchObject({ when: [{ field: "price", least: 5 }], call: "drop" });
  await userEvent.click(screen.getByText(/Call 1 keyword by these rules/));
  await waitFor(() => expect(asked).toHaveLength(2));
});

it("a condition of a house rule is read before it is taken", async () => {
  const asked = await showOnPlan(
    <Sift />,
    {
      "GET ": () => ({ body: { summary: withRules([]), sheet } }),
      "GET /sift/rules": () => ({ body: { revision: 1, rules: [] } }),
      "PATCH /own": () => ({ body: changeOf({ summary: withRules([]) }) }),
    },
    sheet,
  );
  fireEvent.keyDown(window, { key: "u" });
  const what = await screen.findByLabelText("what");
  const add = () => userEvent.click(screen.getByText("Add this rule"));
  const refused = async (text: string) => within(await screen.findByRole("alert")).findByText(text);
  await userEvent.selectOptions(what, "holds the words");
  await add();
  expect(await refused("holds the words: expected words.")).toBeTruthy();
  await userEvent.selectOptions(what, "number of words");
  await add();
  expect(
    await refused("number of words: expected a number to begin from or to go up to."),
  ).toBeTruthy();
  await userEvent.type(screen.getByLabelText("to"), "five");
  await userEvent.click(screen.getByText("and another condition"));
  expect(await refused("number of words, to: expected a number, got “five”.")).toBeTruthy();
  expect(asked).toEqual([]);
  await userEvent.clear(screen.getByLabelText("to"));
  await userEvent.type(screen.getByLabelText("to"), "5");
  await userEvent.click(screen.getByText("and another condition"));
  expect(screen.getByText("number of words up to 5 and …")).toBeTruthy();
  await userEvent.selectOptions(what, "long tail");
  await add();
  await waitFor(() => expect(asked).toHaveLength(1));
  const { house_rules } = asked[0]!.body as { house_rules: { when: unknown[] }[] };
  expect(house_rules[0]!.when).toEqual([
    { field: "words", value: "", least: null, most: 5 },
    { field: "thin", value: "yes", least: null, most: null },
  ]);
});

const withRules = (rules: unknown[]) => {
  const summary = summaryOf(1);
  return { ...summary, own: { ...summary.own, house_rules: rules as never } };
};
