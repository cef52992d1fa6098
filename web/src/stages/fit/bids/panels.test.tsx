import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../../data/client";
import { changeOf, refusal, showOnPlan } from "../../../testing-plan";
import { summaryOf } from "../../../testing-summary";
import { Asking } from "./Asking";
import { Cap } from "./Cap";
import { MoveBar } from "./MoveBar";
import { Ways } from "./Ways";

const patched = { "PATCH /brief": () => ({ body: changeOf({ did: "change the brief" }) }) };

const rowOf = (text: RegExp) => screen.getByText(text).closest("tr")!;

describe("ways to bid", () => {
  const way = (changes: Partial<Schemas["OtherWayItem"]>): Schemas["OtherWayItem"] => ({
    name: "fitted",
    share: null,
    flat_bid: null,
    value: 12,
    clicks: 400,
    customers: 12,
    spend: 600,
    profit: 2000,
    reach: 0.41,
    not_run: 0,
    pace: 1,
    ...changes,
  });
  const ways = [
    way({}),
    way({ name: "middle", value: 10.5, pace: 0.62, not_run: 3 }),
    way({ name: "flat", value: 9, flat_bid: 1.2 }),
    way({ name: "percentile", value: 8, share: 0.4 }),
  ];
  const seen: (string | null)[] = [];
  const answers = {
    "GET /fit/ways": (_: unknown, query: URLSearchParams) => {
      seen.push(query.get("percentile"));
      return { body: { goal: "customers", revision: 1, ways } };
    },
    ...patched,
  };

  it("stand beside each other with what each brings, and the one in use says so", async () => {
    await showOnPlan(<Ways />, answers);
    await screen.findByText(/fitted to the purse/);
    expect(within(rowOf(/fitted to the purse/)).getByText("in use")).toBeTruthy();
    expect(rowOf(/fitted to the purse/).hasAttribute("data-best")).toBe(true);
    const cells = within(rowOf(/the middle price/)).getAllByRole("cell");
    expect(cells.slice(0, 6).map((cell) => cell.textContent)).toEqual([
      "10.5",
      "400",
      "600.00",
      "41\u00a0%",
      "3",
      "62\u00a0%",
    ]);
  });

  it("one is taken with the figure that it was looked at with", async () => {
    const asked = await showOnPlan(<Ways />, answers);
    await userEvent.click(await screen.findByRole("button", { name: /Use it: one bid for all/ }));
    await waitFor(() =>
      expect(asked.at(-1)!.body).toEqual({ policy: "flat", flat_bid: 1.2, policy_share: null }),
    );
  });

  it("another figure is only looked at, and nonsense is not taken", async () => {
    const asked = await showOnPlan(<Ways />, answers);
    const blank = await screen.findByLabelText(/Per cent to look at: a percentile/);
    await userEvent.clear(blank);
    await userEvent.type(blank, "25{Enter}");
    await waitFor(() => expect(seen.at(-1)).toBe("0.25"));
    await userEvent.clear(screen.getByLabelText("Flat bid to look at"));
    await userEvent.type(screen.getByLabelText("Flat bid to look at"), "none{Enter}");
    expect(asked).toEqual([]);
  });

  it("says so where nothing could run", async () => {
    const body = { goal: "customers", revision: 1, ways: [] };
    await showOnPlan(<Ways />, { "GET /fit/ways": () => ({ body }) });
    expect(await screen.findByText("No kept keyword could run yet.")).toBeTruthy();
  });
});

describe("asked the other way round", () => {
  const least = (changes: Partial<Schemas["LeastView"]>): Schemas["LeastView"] => ({
    goal: "customers",
    wanted: 12,
    purse: 640,
    more: 40,
    most: 30,
    saturation: 5000,
    keywords: 1,
    too_few: [],
    too_few_count: 0,
    ...changes,
  });
  const answering = (found: (wanted: number, goal: string) => Partial<Schemas["LeastView"]>) => ({
    "GET /fit/least": (_: unknown, query: URLSearchParams) => ({
      body: least(found(Number(query.get("wanted")), query.get("goal")!)),
    }),
    ...patched,
  });

  it("says what more of the goal costs, and makes the least money the purse", async () => {
    const asked = await showOnPlan(
      <Asking goal="customers" />,
      answering(() => ({})),
    );
    expect(await screen.findByText("40.00 GBP more a month")).toBeTruthy();
    const sum = await screen.findByText("640.00 GBP a month, to the cent");
    await userEvent.click(
      within(sum.closest("p")!).getByRole("button", { name: "make it the purse" }),
    );
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ purse: 640, per: "month" }));
  });

  it("says so where no money would bring it", async () => {
    const out = { purse: null, more: null, most: 30 };
    await showOnPlan(
      <Asking goal="customers" />,
      answering(() => out),
    );
    expect(await screen.findByText(/no money would: 30.0 is the most there is/)).toBeTruthy();
    expect(screen.getByText(/no money brings them: at 5,000.00 GBP it stays at 30.0/)).toBeTruthy();
    expect(screen.queryByRole("button", { name: "make it the purse" })).toBeNull();
  });

  it("asks for what is typed, and names the keywords that can't have so many clicks", async () => {
    const wants: number[] = [];
    await showOnPlan(
      <Asking goal="customers" />,
      answering((wanted, goal) => {
        if (goal !== "clicks_each") return {};
        wants.push(wanted);
        return { too_few: ["a", "b", "c", "d"], too_few_count: 5 };
      }),
    );
    expect(await screen.findByText(/5 can’t have so many: a, b, c …/)).toBeTruthy();
    const each = screen.getByLabelText("Clicks for each");
    await userEvent.clear(each);
    await userEvent.type(each, "8{Enter}");
    await waitFor(() => expect(wants).toEqual([5, 8]));
  });

  it("says a refusal where the answer would stand", async () => {
    await showOnPlan(<Asking goal="customers" />, {
      "GET /fit/least": () => ({ status: 422, body: refusal("nothing is kept") }),
    });
    await waitFor(() => expect(screen.getAllByText("nothing is kept")).toHaveLength(3));
  });
});

describe("the one cap", () => {
  const cap = { cap: 2.15, value: 11, clicks: 390, customers: 11, spend: 598, pace: 1 };
  const view: Schemas["CapView"] = {
    goal: "customers",
    fitted: 12,
    bare: { ...cap, pace: 0.8 },
    own: cap,
    raise_share: 0.3,
  };

  it("says what the platform is to be given, and what that loses", async () => {
    await showOnPlan(<Cap />, { "GET /fit/cap": () => ({ body: view }) });
    expect((await screen.findAllByText("2.15")).length).toBe(2);
    expect(screen.getByText(/in 80 % of the searches it could win/)).toBeTruthy();
    expect(screen.getByText("12.0 customers")).toBeTruthy();
    expect(screen.getByText(/raise a bid by 30 % by itself, so every/).textContent).toContain(
      "divided by 1.30",
    );
  });

  it("keeps off round prices where it is told to", async () => {
    const asked: (string | null)[] = [];
    await showOnPlan(<Cap />, {
      "GET /fit/cap": (_: unknown, query: URLSearchParams) => {
        asked.push(query.get("odd"));
        return { body: view };
      },
    });
    await userEvent.click(await screen.findByRole("button", { name: /Round prices/ }));
    await userEvent.click(screen.getByRole("option", { name: "never on a round price" }));
    await waitFor(() => expect(asked).toEqual(["false", "true"]));
  });

  it("says so where there is nothing to cap", async () => {
    await showOnPlan(<Cap />, { "GET /fit/cap": () => ({ body: { ...view, bare: null } }) });
    expect(await screen.findByText(/there is nothing to cap/)).toBeTruthy();
  });
});

describe("moving bids", () => {
  const tried = (spend: number): Schemas["BidMoveTried"] => ({
    changed: 2,
    purse: { ...summaryOf(1).purse, spend, customers: 12.5 },
  });

  it("shows what a move does before it is made, and makes the same one", async () => {
    const done = vi.fn();
    const asked = await showOnPlan(<MoveBar chosen={new Set([4, 7])} onDone={done} />, {
      "POST /bids/try": () => ({ body: tried(520) }),
      "POST /bids/move": () => ({ body: changeOf({ did: "move 2 bids" }) }),
    });
    expect(
      await screen.findByText(/2 bids of the plan would change: spend \+20.00, customers 12.5/),
    ).toBeTruthy();
    expect(asked[0]!.body).toEqual({ ids: [4, 7], way: "times", value: 1.1 });
    const much = screen.getByLabelText("By how much");
    await userEvent.clear(much);
    await userEvent.type(much, "-20{Enter}");
    await waitFor(() => expect(asked.at(-1)!.body).toMatchObject({ value: 0.8 }));
    await userEvent.click(screen.getByRole("button", { name: "move them" }));
    await waitFor(() => expect(done).toHaveBeenCalledOnce());
    const moved = asked.filter(({ path }) => path === "/bids/move");
    expect(moved.map(({ body }) => body)).toEqual([{ ids: [4, 7], way: "times", value: 0.8 }]);
  });

  it("stays open with the reason where a move is refused", async () => {
    const done = vi.fn();
    await showOnPlan(<MoveBar chosen={new Set([4])} onDone={done} />, {
      "POST /bids/try": () => ({ status: 422, body: refusal("no bid under 0.05") }),
      "POST /bids/move": () => ({ status: 422, body: refusal("no bid under 0.05") }),
    });
    expect(await screen.findByText("no bid under 0.05")).toBeTruthy();
    await userEvent.click(screen.getByRole("button", { name: "move them" }));
    await waitFor(() =>
      expect(screen.getByTestId("said").textContent).toContain("no bid under 0.05"),
    );
    expect(done).not.toHaveBeenCalled();
  });
});
