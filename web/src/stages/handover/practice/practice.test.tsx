import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../../data/client";
import { percent } from "../../../parts/format";
import { giveSizes } from "../../../testing-layout";
import { refusal, showOnPlan } from "../../../testing-plan";
import { Practice } from "./Practice";
import type { PracticeView } from "./usePractice";

beforeAll(giveSizes);

const account: Schemas["PracticeAccountItem"] = {
  clock: "still",
  done: 0,
  envelope: null,
  level: "usual",
  live: { campaigns: 1, groups: 2, keywords: 40, negatives: 0 },
  name: "a-plan",
  seed: 7,
  start: "2027-03-01",
  today: "2027-03-04",
  wanted: 0,
};

const reply = (state: string, row: number, message: string): Schemas["ReplyItem"] => ({
  state,
  row,
  message,
  sheet: "keywords",
  name: "sash repair",
  old: "",
  new: "1.50",
  code: state === "refused" ? "bid_step" : "",
  field: "bid",
  ref: "k1",
});

const sending: Schemas["SendingItem"] = {
  id: 3,
  at: "2027-02-28T10:00:00Z",
  state: "done",
  message: "",
  taken: 41,
  warned: 1,
  refused: 1,
  more: 39,
  differs: [],
  replies: [
    reply("refused", 4, "expected a bid in steps of 0.01, got 1.505"),
    reply("taken", 5, ""),
  ],
};

const day = (date: string, changes: Partial<Schemas["DayItem"]> = {}): Schemas["DayItem"] => ({
  day: date,
  impressions: 90,
  clicks: 4,
  cost: 6,
  credit: 0.5,
  customers: 0,
  enquiries: 0,
  could_show: 120,
  lost_to_money: 0,
  invalid_clicks: 0,
  ...changes,
});

const days = [
  day("2027-03-01"),
  day("2027-03-02", { customers: 1, clicks: 6, lost_to_money: 30 }),
  day("2027-03-03"),
];

const view = (changes: Partial<PracticeView> = {}): PracticeView => ({
  account,
  days: [],
  sending,
  waits: 0,
  ...changes,
});

const shown = (found: PracticeView, answers = {}) =>
  showOnPlan(<Practice />, { "GET /practice": () => ({ body: found }), ...answers });

const press = async (name: string) => userEvent.click(await screen.findByRole("button", { name }));

describe("without an account", () => {
  const none = view({ account: null, sending: null });

  it("says what the practice market is, and opens one as far from the plan as is said", async () => {
    const asked = await shown(none, { "POST /practice": () => ({ body: view() }) });
    expect(await screen.findByText(/Nothing leaves this machine/)).toBeTruthy();
    const seed = screen.getByLabelText("Number of the truth");
    await userEvent.clear(seed);
    await userEvent.type(seed, "12{Enter}");
    await press("Open the account");
    await screen.findByText("A simulated account");
    expect(asked[0]!.body).toEqual({ level: "usual", seed: 12 });
  });

  it.each(["-1", "1.5", "many"])("takes no %s for the number of a truth", async (typed) => {
    await shown(none);
    const seed = await screen.findByLabelText("Number of the truth");
    await userEvent.clear(seed);
    await userEvent.type(seed, `${typed}{Enter}`);
    await waitFor(() => expect(seed.getAttribute("aria-invalid")).toBe("true"));
    expect(seed).toHaveProperty("value", typed);
  });

  it("says why it could not be opened, and can be pressed again", async () => {
    await shown(none, { "POST /practice": () => ({ status: 422, body: refusal("not so many") }) });
    await press("Open the account");
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not so many"));
    const open = screen.getByRole("button", { name: "Open the account" });
    expect(open.hasAttribute("disabled")).toBe(false);
  });
});

it("says which account it is, its day, what it holds and that it stands as the plan does", async () => {
  await shown(view());
  const said = (await screen.findByText("A simulated account")).parentElement!;
  expect(said.textContent).toBe(
    "A simulated account, a truth as unlike the plan as is usual, truth no. 7. " +
      "Its next day is 4 March 2027. It holds 1 campaign, 2 groups, 40 keywords. " +
      "It stands as the plan does.",
  );
});

it.each([
  ["Send 3 rows", "changed"],
  ["Send the whole plan", "all"],
])("%s sends, and shows the reply", async (name, only) => {
  const asked = await shown(view({ waits: 3 }), {
    "POST /practice/send": () => ({ body: view() }),
  });
  await press(name);
  await screen.findByText("It stands as the plan does.");
  expect(asked.at(-1)!.body).toEqual({ only });
  expect(screen.getByRole("grid", { name: "The reply sheet" })).toBeTruthy();
});

it("puts what was refused into the reply sheet with what was expected and got", async () => {
  await shown(view());
  const grid = await screen.findByRole("grid", { name: "The reply sheet" });
  const row = within(grid).getByText("refused").closest("[role=row]")!;
  expect(row.textContent).toContain("expected a bid in steps of 0.01, got 1.505");
  expect(screen.getByText(/Read back: every field stands as in the plan/)).toBeTruthy();
});

it.each([
  [
    { differs: [{ name: "sash repair", field: "bid", wanted: "1.50", stands: "1.40" }] },
    "Read back: 1 field not as in the plan, first sash repair, bid: “1.50” wanted, “1.40” stands.",
  ],
  [
    { differs: [{ name: "sash cord", field: "", wanted: "", stands: "" }] },
    "first sash cord: not there.",
  ],
  [
    { differs: [{ name: "old ad", field: "", wanted: "", stands: "ad" }] },
    "first old ad: there, and not in the plan.",
  ],
  [{ differs: null }, "It was not read back yet."],
] as [Partial<typeof sending>, string][])("says what the account holds: %s", async (one, said) => {
  await shown(view({ sending: { ...sending, ...one } }));
  const told = (await screen.findByText("1 refused")).parentElement!;
  expect(told.textContent).toContain(said);
});

it("what was cut short says so and goes on from there", async () => {
  const cut = {
    ...sending,
    state: "cut short",
    message: "the market did not answer",
    differs: null,
  };
  const asked = await shown(view({ sending: cut, waits: 9 }), {
    "POST /practice/go-on": () => ({ body: view() }),
  });
  expect(await screen.findByText("Cut short: the market did not answer")).toBeTruthy();
  await press("Go on where it was cut short");
  await screen.findByText("It stands as the plan does.");
  expect(asked.map((one) => one.path)).toEqual(["/practice/go-on"]);
});

it("lets no day pass before anything was sent", async () => {
  await shown(view({ sending: null, waits: 40 }));
  expect(await screen.findByText(/Nothing was sent to it yet/)).toBeTruthy();
  for (const name of ["a day", "a week", "30 days"])
    expect(screen.getByRole("button", { name }).hasAttribute("disabled")).toBe(true);
});

it("days pass, are counted and can be stopped; nothing else is sent meanwhile", async () => {
  const running = { ...account, clock: "running", done: 2, wanted: 7 };
  let now = view();
  const asked = await shown(now, {
    // while days pass it is asked for again and again
    "GET /practice": () => ({ body: now }),
    "POST /practice/clock": () => ({ body: (now = view({ account: running })) }),
    "DELETE /practice/clock": () => ({ body: (now = view({ days })) }),
  });
  await press("a week");
  expect((await screen.findByRole("status", { name: "" })).textContent).toBe("2 of 7 days passed");
  const bar = screen.getByRole("progressbar", { name: "Days passed" });
  expect(bar.getAttribute("aria-valuenow")).toBe("2");
  expect(screen.getByRole("button", { name: "Send again" }).hasAttribute("disabled")).toBe(true);
  await press("Stop");
  await screen.findByText("3 days");
  expect(asked.map((one) => [one.method, one.body])).toEqual([
    ["POST", { days: 7 }],
    ["DELETE", null],
  ]);
});

it("sums the days up and draws each under its own date", async () => {
  await shown(view({ days }));
  const said = (await screen.findByText("3 days")).parentElement!;
  expect(said.textContent).toBe(
    "3 days: 16.50 GBP spent, 14 clicks at 1.18, 1 customer at 16.50 so far; some are reported late. " +
      `Of 360 searches 30 came when the day’s money was gone (${percent(30 / 360)}).`,
  );
  const picture = screen.getByRole("img", { name: /1 March 2027 to 3 March 2027/ });
  expect(picture.textContent).toContain("1 Mar");
  expect(picture.querySelectorAll("rect[data-cut]")).toHaveLength(1);
  expect(picture.querySelectorAll("circle")).toHaveLength(1);
  expect(screen.getByText("keyword").getAttribute("href")).toBe(
    "/api/plans/1/practice/results?level=keyword",
  );
});

describe("the envelope", () => {
  const truth: Schemas["EnvelopeView"] = {
    keywords: [
      {
        keyword: "sash repair",
        searches: 100,
        true_searches: 0,
        price: 1.2,
        true_price: 1.4,
        rate: 0.04,
        true_rate: 0.031,
        best_bid: null,
      } as Schemas["EnvelopeView"]["keywords"][number],
    ],
    since: "2027-03-01",
    until: "2027-03-03",
    plan: { profit: 12, customers: 1.5, spend: 16.5 },
    hindsight: { profit: 20, customers: 2, spend: 16 },
    unknown: 200,
    useless: 50,
  } as Schemas["EnvelopeView"];

  const opened = (answer = {}) =>
    shown(view({ days }), { "POST /practice/envelope": () => ({ body: truth, ...answer }) });
  const look = async () => {
    const choice = await screen.findByRole("button", {
      name: /What of the practice market is shown/,
    });
    await userEvent.click(choice);
    await userEvent.click(await screen.findByRole("option", { name: "the envelope" }));
  };

  it("stays shut until somebody decides to look, and says what that costs", async () => {
    const asked = await opened();
    await look();
    expect(screen.getByText(/proves nothing about your judgement/)).toBeTruthy();
    expect(asked).toEqual([]);
    await press("Open the envelope");
    const summary = (await screen.findByText(/luck left aside/)).textContent;
    expect(summary).toContain("1 March 2027 to 3 March 2027");
    expect(summary).toContain(
      `200 searches a month are terms nobody knew of; ${percent(1 / 4)} of them`,
    );
    expect(asked.map((one) => one.path)).toEqual(["/practice/envelope"]);
  });

  it("says why it could not be opened", async () => {
    await opened({ status: 409, body: refusal("days are passing") });
    await look();
    await press("Open the envelope");
    expect((await screen.findByRole("alert")).textContent).toBe("days are passing try again");
  });
});

it("where the market can’t be asked, says so, that the plan is as it was, and offers another", async () => {
  await showOnPlan(<Practice />, {
    "GET /practice": () => ({ status: 503, body: refusal("The practice market is gone.") }),
  });
  const said = await screen.findByRole("alert");
  expect(said.textContent).toContain("The practice market is gone. The plan itself is as it was.");
  await press("open another account");
  expect(screen.getByRole("heading", { name: "Another practice account" })).toBeTruthy();
  await press("Stay with the one that is open");
  expect(screen.getByRole("alert")).toBeTruthy();
});
