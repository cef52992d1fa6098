import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { giveSizes } from "../../testing-layout";
import { refusal, showOnPlan } from "../../testing-plan";
import { Keywords } from "./Keywords";
import { Terms } from "./Terms";
import { Waits } from "./Waits";
import { april, keyword, term } from "./testing-learn";
import type { LearnView, Waiting } from "./view";

beforeAll(giveSizes);

const notNow = () => ({ status: 422, body: refusal("not now") });
const refusing = {
  "POST /learn/decide": notNow,
};
const click = async (name: string | RegExp) =>
  userEvent.click(await screen.findByRole("button", { name }));
const choose = async (label: RegExp, option: string) => {
  await click(label);
  await userEvent.click(await screen.findByRole("option", { name: option }));
};
const names = (label: string) =>
  within(screen.getByRole("grid", { name: label }))
    .getAllByRole("row")
    .slice(1)
    .map((row) => within(row).getAllByRole("gridcell")[0]!.textContent);

describe("terms", () => {
  const terms = [
    term({ term: "sash repair jobs" }),
    term({ term: "sash 4711", suggestion: "spot", item: true, thing: "Sash No. 4711" }),
    term({ term: "blue sash", suggestion: "wait", ground: "", clicks_needed: 13.2 }),
    term({
      ...{ term: "oak sash", suggestion: "own_keyword", ground: "it sold", form: "" },
      ...{ bid: 1.5, group: "Oak", customers: 2 },
    }),
    term({ term: "free sash", decided: true }),
  ];
  const view = { ...april, terms };
  const shown = async (of: LearnView = view) => {
    const asked = await showOnPlan(<Terms view={of} />, refusing);
    await screen.findByRole("grid", { name: "Terms" });
    return asked;
  };

  it("shows what is to be decided first, each with why and what is suggested", async () => {
    await shown();
    expect(names("Terms")).toEqual(["sash repair jobs", "sash 4711 Sash No. 4711", "oak sash"]);
    const grid = screen.getByRole("grid", { name: "Terms" });
    expect(within(grid).getByText("it sold; bid 1.50 in Oak")).toBeTruthy();
    expect(within(grid).getAllByText("warning word: jobs; “jobs”")).toHaveLength(2);
    await choose(/Which terms/, "all");
    expect(within(grid).getByText("needs 14 clicks more without a sale")).toBeTruthy();
    await choose(/Which terms/, "decided");
    expect(names("Terms")).toEqual(["free sash"]);
    await choose(/Which terms/, "codes of things");
    expect(names("Terms")).toEqual(["sash 4711 Sash No. 4711"]);
  });

  it("does what is suggested of all that are selected: codes become spots, the rest terms", async () => {
    const asked = await shown();
    screen.getByRole("grid", { name: "Terms" }).focus();
    await userEvent.keyboard("{ArrowDown}{Control>}a{/Control}");
    await click(/As suggested/);
    await waitFor(() =>
      expect(asked.map((one) => one.body)).toEqual([
        {
          items: { terms: ["sash 4711"] },
          terms: { terms: ["sash repair jobs", "oak sash"], act: "suggested" },
        },
      ]),
    );
  });

  it("leaves out what waits where the rest is done as suggested", async () => {
    const asked = await shown();
    await choose(/Which terms/, "all");
    screen.getByRole("grid", { name: "Terms" }).focus();
    await userEvent.keyboard("{ArrowDown}{Control>}a{/Control}");
    await click(/As suggested/);
    await waitFor(() =>
      expect(asked.at(-1)?.body).toMatchObject({
        terms: { terms: ["sash repair jobs", "oak sash"] },
      }),
    );
  });

  it.each([
    ["Block the text", "block_text"],
    ["Make it a keyword", "own_keyword"],
  ])("%s does so whatever is suggested", async (name, act) => {
    const asked = await shown();
    await choose(/Which terms/, "all");
    await userEvent.click(screen.getByText("blue sash"));
    expect(screen.getByRole("button", { name: /As suggested/ }).hasAttribute("disabled")).toBe(
      true,
    );
    await click(name);
    await waitFor(() =>
      expect(asked.at(-1)?.body).toEqual({ terms: { terms: ["blue sash"], act } }),
    );
  });

  it("opens a term in a search, where somebody said at which address", async () => {
    const opened = vi.fn();
    vi.stubGlobal("open", opened);
    await shown();
    await userEvent.click(screen.getByText("oak sash"));
    const open = screen.getByRole("button", { name: /open this one/ });
    expect(open.hasAttribute("disabled")).toBe(true);
    await userEvent.type(
      screen.getByLabelText("Search address"),
      "https://find.example/?q={Enter}",
    );
    await userEvent.click(open);
    expect(opened.mock.calls[0]![0]).toContain("find.example");
    expect(opened.mock.calls[0]![0]).toContain("oak");
  });

  it("says so where no report of terms counts", async () => {
    await shown({ ...april, terms: [] });
    expect(screen.getByText("No report of terms is in force.")).toBeTruthy();
  });
});

describe("keywords", () => {
  const hardly = { why: "bid", next_bid: 2 } as never;
  const keywords = [
    keyword({ id: 4 }),
    keyword({ id: 5, keyword: "sash cord", verdict: "wait", clicks_needed: 11.4, rule_cuts: true }),
    keyword({ id: 6, keyword: "oak sash", verdict: "raise", rule_cuts: false, customers: 4 }),
    keyword({
      id: 7,
      keyword: "old sash",
      call: "drop",
      verdict: "wait",
      hardly,
      rule_cuts: false,
    }),
    keyword({
      ...{ id: 8, keyword: "sash paint", verdict: "wait", rule_cuts: false },
      ...{ rivals_came: ["Ashby"], rivals_gone: ["Oakley"] },
    }),
  ];
  const shown = async () => {
    const asked = await showOnPlan(<Keywords view={{ ...april, keywords }} />, refusing);
    await screen.findByRole("grid", { name: "Keywords by their results" });
    return asked;
  };
  const label = "Keywords by their results";

  it("says what evidence says of each beside the rule of thumb", async () => {
    await shown();
    const grid = screen.getByRole("grid", { name: label });
    for (const said of ["wait, 12 clicks", "hardly shown: its bid is low", "+ Ashby − Oakley"])
      expect(within(grid).getByText(said)).toBeTruthy();
    expect(screen.getByText(/would cut 2 keywords; evidence doesn’t stop 1 of them/)).toBeTruthy();
  });

  it.each([
    ["to stop", ["sash repair"]],
    ["to raise", ["oak sash"]],
    ["cut by the rule of thumb alone", ["sash cord"]],
    ["hardly shown", ["old sash"]],
    ["rivals came or went", ["sash paint"]],
    ["worth testing", []],
  ])("shows those %s", async (kind, expected) => {
    await shown();
    await choose(/Which keywords/, kind);
    if (expected.length === 0) expect(screen.getByText("No keyword of this kind.")).toBeTruthy();
    else expect(names(label)).toEqual(expected);
  });

  it("stops what is chosen and still kept, and nothing else", async () => {
    const asked = await shown();
    expect(screen.getByRole("button", { name: "Stop it" }).hasAttribute("disabled")).toBe(true);
    screen.getByRole("grid", { name: label }).focus();
    await userEvent.keyboard("{ArrowDown}{Control>}a{/Control}");
    await click("Stop these 4"); // one of the five is dropped already
    await waitFor(() => expect(asked.at(-1)?.body).toEqual({ keywords: { ids: [4, 5, 6, 8] } }));
  });
});

describe("what waits", () => {
  const waits = (kind: Waiting["kind"], key: string, changes: Partial<Waiting> = {}): Waiting => ({
    ...{ kind, key, name: key, says: kind, money: 10, suggestion: kind, bid: null },
    ...changes,
  });
  const waiting = [
    waits("block", "sash jobs"),
    waits("own_keyword", "oak sash"),
    waits("spot", "sash 4711"),
    waits("stop", "4"),
    waits("hardly", "7", { bid: 2 }),
    waits("hardly", "8"),
    waits("raise", "6"),
    waits("review", "2027-05-01"),
    waits("close", "month"),
  ];
  const shown = async (some = waiting) => {
    const close = vi.fn();
    const view = { ...april, waiting: some };
    const asked = await showOnPlan(<Waits view={view} onClose={close} />, refusing);
    await screen.findByRole("grid", { name: "What waits" });
    return { asked, close };
  };

  it("does all that are selected, each kind in its own way, but no raise and no bid that would not pay", async () => {
    const { asked, close } = await shown();
    screen.getByRole("grid", { name: "What waits" }).focus();
    await userEvent.keyboard("{Control>}a{/Control}");
    await click(/Do these 7/);
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]!.body).toEqual({
      terms: { terms: ["sash jobs", "oak sash"], act: "suggested" },
      items: { terms: ["sash 4711"] },
      keywords: { ids: [4] },
      bids: { ids: [7] },
      aside: {
        until: "turned",
        items: [{ kind: "review", key: "2027-05-01", suggestion: "review" }],
      },
    });
    // nothing of it was done: the month is not closed either
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(close).not.toHaveBeenCalled();
  });

  it.each([
    ["Block all that is suggested", ["sash jobs"]],
    ["Keep all that sold", ["oak sash"]],
  ])("%s is one press", async (name, terms) => {
    const { asked } = await shown();
    await click(name);
    await waitFor(() => expect(asked.at(-1)?.body).toEqual({ terms: { terms, act: "suggested" } }));
  });

  it("goes on to close the month once the rest is done", async () => {
    const close = vi.fn();
    await showOnPlan(<Waits view={{ ...april, waiting: [waits("close", "m")] }} onClose={close} />);
    await click(/Do it/);
    await waitFor(() => expect(close).toHaveBeenCalled());
  });

  it("asks again with later results", async () => {
    const { asked } = await shown();
    await userEvent.click(screen.getByText("oak sash"));
    await click(/With later results/);
    await waitFor(() =>
      expect(asked.at(-1)?.body).toEqual({
        aside: {
          until: "later",
          items: [{ kind: "own_keyword", key: "oak sash", suggestion: "own_keyword" }],
        },
      }),
    );
  });

  it("says so where nothing waits", async () => {
    await shown([]);
    expect(screen.getByText(/Nothing waits: everything the results suggest is done/)).toBeTruthy();
  });
});
