import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { refusal, showOnPlan, type Asked } from "../../testing-plan";
import { Learn } from "./Learn";
import { april, empty } from "./testing-learn";
import type { LearnView } from "./view";

const shown = (view: LearnView, answers = {}) =>
  showOnPlan(<Learn />, { "GET /learn": () => ({ body: view }), ...answers });

it("says what to bring where there are no results, and offers no empty views", async () => {
  await shown(empty);
  expect(await screen.findByText(/Here results are held against the plan/)).toBeTruthy();
  expect(screen.queryByRole("radiogroup", { name: "What is shown" })).toBeNull();
});

it("does what waits with one key, as the results suggest", async () => {
  const asked = await shown(april, {
    "POST /learn/decide": () => ({ status: 422, body: refusal("not now") }),
  });
  (await screen.findByRole("grid", { name: "What waits" })).focus();
  await userEvent.keyboard("{Enter}");
  await waitFor(() =>
    expect(asked.at(-1)!.body).toEqual({
      terms: { terms: ["sash repair jobs"], act: "suggested" },
    }),
  );
});

it("shows why the month differs as a sum from what was planned to what came", async () => {
  await shown(april);
  await userEvent.click(await screen.findByText("The month"));
  const sum = await screen.findByRole("table", { name: "Why the customers differ" });
  const rows = within(sum).getAllByRole("row");
  expect(rows[0]!.textContent).toBe("planned for these days4.00");
  expect(rows.at(-1)!.textContent).toBe("reported3.00");
});

it.each([
  ["what was sent", [["2027-04-01", "2027-04-30", true]], /^Held against what was sent on .*\. $/],
  [
    "each of two that ran",
    [
      ["2027-04-01", "2027-04-09", true],
      ["2027-04-10", "2027-04-30", true],
    ],
    /\(1 April 2027 to 9 April 2027\), on .* \(10 April 2027 to 30 April 2027\)/,
  ],
  [
    "the plan where what was sent is lost",
    [["2027-04-01", "2027-04-30", false]],
    /^What was sent on .* can’t be read any more: those days are held against the plan/,
  ],
  ["the plan where nothing runs", [], /^Held against the plan as it stands/],
] as [string, [string, string, boolean][], RegExp][])(
  "says what the month is held against: %s",
  async (_, ran, said) => {
    const sent = ran.map(([first, last, read]) => ({
      at: "2027-03-30T09:00:00Z",
      first,
      last,
      read,
    }));
    await shown({ ...april, month: { ...april.month!, sent } });
    await userEvent.click(await screen.findByText("The month"));
    const line = await screen.findByText(/eld against/);
    expect(line.textContent).toMatch(said);
  },
);

it("sets a suggestion aside with one key", async () => {
  const asked = await shown(april, {
    "POST /learn/decide": () => ({ status: 422, body: refusal("not now") }),
  });
  (await screen.findByRole("grid", { name: "What waits" })).focus();
  await userEvent.keyboard("n");
  await waitFor(() => expect(asked.at(-1)?.body).toMatchObject({ aside: { until: "turned" } }));
});

it("shows what was set aside, to be asked again", async () => {
  const left = { ...april, waiting: [], aside: april.waiting };
  const asked = await shown(left, {
    "POST /learn/decide": () => ({ status: 422, body: refusal("not now") }),
  });
  await userEvent.click(await screen.findByRole("button", { name: /What is shown of the queue/ }));
  await userEvent.click(await screen.findByRole("option", { name: /set aside, 1/ }));
  await userEvent.click(await screen.findByRole("button", { name: /Ask again/ }));
  await waitFor(() =>
    expect(asked.at(-1)?.body).toEqual({
      aside: {
        until: "now",
        items: [{ kind: "block", key: "sash repair jobs", suggestion: "block_family" }],
      },
    }),
  );
});

it("says that a closed month stands as it was, and where it goes on", async () => {
  await shown({ ...april, closed_as: 9, next_label: "May 2027" });
  const on = await screen.findByRole("link", { name: "Go on with May 2027" });
  expect(on.getAttribute("href")).toBe("/plan/9/learn");
});

it("says what is refused in the server's words, and keeps what was there", async () => {
  await shown(
    { ...empty, has_practice: true },
    {
      "POST /results/practice": () => ({ status: 422, body: refusal("no day has passed") }),
    },
  );
  await userEvent.click(await screen.findByText("Take over from the practice market"));
  expect((await screen.findByTestId("said")).textContent).toContain("no day has passed");
  expect(await screen.findByText("Choose files")).toBeTruthy();
});

it("asks what the columns of a file hold whose headings don’t tell, and reads it so", async () => {
  const headings = ["Wort", "Tag", "Klicks"];
  const fields = { keyword: "keyword", day: "day", clicks: "clicks" };
  const asked = await shown(empty, {
    "POST /results": () => ({ status: 422, body: refusal("expected a column for clicks") }),
    "POST /results/headings": () => ({ body: { headings, columns: { day: 1 }, fields } }),
  });
  await screen.findByRole("button", { name: "Choose files" });
  const input = document.querySelector<HTMLInputElement>("input[type=file]")!;
  await userEvent.upload(input, new File(["Wort;Tag;Klicks\n"], "april.csv"));
  expect(await screen.findByText("expected a column for clicks")).toBeTruthy();
  expect(screen.getByRole("button", { name: /Column of day/ }).textContent).toContain("Tag");
  await userEvent.click(screen.getByRole("button", { name: /Column of clicks/ }));
  await userEvent.click(await screen.findByRole("option", { name: "Klicks" }));
  await userEvent.click(screen.getByRole("button", { name: "Read it so" }));
  await waitFor(() => expect(asked.filter(({ path }) => path === "/results")).toHaveLength(2));
  // refused again: what was assigned is still there
  expect(await screen.findByText("expected a column for clicks")).toBeTruthy();
  expect(screen.getByRole("button", { name: /Column of clicks/ }).textContent).toContain("Klicks");
  await userEvent.click(screen.getByRole("button", { name: "Leave it out" }));
  expect(screen.queryByText("expected a column for clicks")).toBeNull();
});

it("asks what all rows cost where no column says it, and keeps what was said", async () => {
  const headings = ["keyword", "day", "clicks"];
  const columns = { keyword: 0, day: 1, clicks: 2 };
  const fields = { keyword: "keyword", day: "day", clicks: "clicks", cost: "cost" };
  const found = { headings, columns, fields, since: null, until: null };
  const queries: string[] = [];
  await shown(empty, {
    "POST /results": (_: Asked, query: URLSearchParams) => {
      queries.push(query.toString());
      return { status: 422, body: refusal("expected a column cost") };
    },
    "POST /results/headings": () => ({ body: found }),
  });
  await screen.findByRole("button", { name: "Choose files" });
  const input = document.querySelector<HTMLInputElement>("input[type=file]")!;
  await userEvent.upload(input, new File(["keyword,day,clicks\n"], "april.csv"));
  const read = await screen.findByRole<HTMLButtonElement>("button", { name: "Read it so" });
  expect(read.disabled).toBe(true);
  expect(screen.queryByRole("textbox", { name: "First day of all rows" })).toBeNull();
  const sum = screen.getByRole("textbox", { name: "Money of all rows" });
  await userEvent.type(sum, "much{Enter}");
  expect(read.disabled).toBe(true);
  await userEvent.clear(sum);
  // what is typed counts at once: one press reads the file with it
  await userEvent.type(sum, "1,234.50");
  expect(read.disabled).toBe(false);
  await userEvent.click(read);
  await waitFor(() => expect(queries).toHaveLength(2));
  expect(queries[1]).toContain("spent=1234.5");
  // refused again: the money that was said is still there
  const again = await screen.findByRole("textbox", { name: "Money of all rows" });
  expect((again as HTMLInputElement).value).toContain("1,234.50");
  // a column that says it leaves nothing to ask
  await userEvent.click(screen.getByRole("button", { name: /Column of cost/ }));
  await userEvent.click(await screen.findByRole("option", { name: "day" }));
  expect(screen.queryByRole("textbox", { name: "Money of all rows" })).toBeNull();
});

it("asks for the days of a file whose rows say none, and reads it with them", async () => {
  const headings = ["keyword", "clicks", "cost"];
  const columns = { keyword: 0, clicks: 1, cost: 2 };
  const fields = { keyword: "keyword", day: "day", clicks: "clicks", cost: "cost" };
  const found = { headings, columns, fields, since: null, until: "2027-04-30" };
  const queries: string[] = [];
  await shown(empty, {
    "POST /results": (_: Asked, query: URLSearchParams) => {
      queries.push(query.toString());
      return { status: 422, body: refusal("expected a column day") };
    },
    "POST /results/headings": () => ({ body: found }),
  });
  await screen.findByRole("button", { name: "Choose files" });
  const input = document.querySelector<HTMLInputElement>("input[type=file]")!;
  await userEvent.upload(input, new File(["keyword,clicks\n"], "april.csv"));
  const read = await screen.findByRole<HTMLButtonElement>("button", { name: "Read it so" });
  expect(read.disabled).toBe(true);
  const last = screen.getByRole<HTMLInputElement>("textbox", { name: "Last day of all rows" });
  expect(last.value).toBe("30 April 2027");
  const first = screen.getByRole<HTMLInputElement>("textbox", { name: "First day of all rows" });
  await userEvent.type(first, "1 April 2027{Enter}");
  await waitFor(() => expect(read.disabled).toBe(false));
  await userEvent.click(read);
  await waitFor(() => expect(queries).toHaveLength(2));
  expect(queries[1]).toContain("since=2027-04-01&until=2027-04-30");
  expect(queries[1]).not.toContain("spent");
  // refused again: the days that were said are still there
  expect(await screen.findByDisplayValue("1 April 2027")).toBeTruthy();
});
