import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { refusal, showOnPlan } from "../../testing-plan";
import { summaryOf } from "../../testing-summary";
import { Corrections } from "./Corrections";
import { Learn } from "./Learn";
import { ResultsIn } from "./ResultsIn";
import { Counted } from "./month/Counted";
import { april, empty } from "./testing-learn";
import type { LearnView } from "./view";

const notNow = () => ({ status: 422, body: refusal("not now") });
const changed = { summary: summaryOf(2), sheet: null, changed: null };
const click = async (name: string) => userEvent.click(await screen.findByRole("button", { name }));
const enter = async (label: string, text: string) => {
  await userEvent.clear(await screen.findByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), `${text}{Enter}`);
};

describe("corrections", () => {
  const view: LearnView = {
    ...april,
    corrections: { searches: 1.2, click_rate: 0.9, price: 1, conversion: 0.8 },
    groups: [{ group: "Repair", spend: 40, customers: 2, factor: 0.85, missing: 0.4 } as never],
  };
  const rows = () =>
    within(screen.getAllByRole("table")[0]!)
      .getAllByRole("row")
      .map((row) =>
        within(row)
          .queryAllByRole("cell")
          .map((cell) => cell.textContent),
      );

  it("offers what was seen over what was planned, but not what nobody could see", async () => {
    await showOnPlan(<Corrections view={view} />);
    await screen.findByRole("heading", { name: "Close the month" });
    const [, searches, clicked, price] = rows();
    expect(searches).toEqual(["–", "the money ran out, and nobody says how many searched"]);
    expect(clicked![0]).toBe("× 0.900");
    expect(price![1]).toBe("+0 %");
  });

  it("takes off what the plan holds already", async () => {
    await showOnPlan(<Corrections view={{ ...view, held: { conversion: 0.8 } }} />);
    await screen.findByRole("heading", { name: "Close the month" });
    expect(rows()[4]).toEqual(["× 0.800", "× 0.800", "+0 %"]);
  });

  it("closes the month with what is ticked, once", async () => {
    const asked = await showOnPlan(<Corrections view={view} />, { "POST /learn/close": notNow });
    await userEvent.click(
      await screen.findByRole("checkbox", { name: /keywords that evidence stops/ }),
    );
    await click("Close the month");
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(asked[0]!.body).toEqual({
      ...{ label: "", figures: true, stops: false, terms: true, ranges: true },
    });
  });

  it("does not close a month twice", async () => {
    await showOnPlan(<Corrections view={{ ...view, closed_as: 9 }} />);
    const close = await screen.findByRole("button", { name: "Close the month" });
    expect(close.hasAttribute("disabled")).toBe(true);
  });
});

describe("results that were brought in", () => {
  const one: LearnView["imports"][number] = {
    ...{ id: 3, at: "2027-05-01T08:00:00Z", source: "april.csv", level: "keyword", rows: 120 },
    ...{ since: "2027-04-01", until: "2027-04-30", as_of: "2027-04-30", in_force: true },
  };

  it("each counts until it is left out", async () => {
    const asked = await showOnPlan(
      <ResultsIn view={{ ...april, imports: [one] }} onSaid={() => undefined} />,
      {
        "POST /results/3/force": notNow,
      },
    );
    await click("Whether april.csv of 2027-05-01T08:00:00Z counts");
    await waitFor(() => expect(asked.at(-1)?.body).toEqual({ in_force: false }));
  });

  it("what stands out in them is said", async () => {
    await showOnPlan(
      <ResultsIn
        view={{ ...april, notices: ["3 to 5 April have no row."] }}
        onSaid={() => undefined}
      />,
    );
    expect(await screen.findByText("3 to 5 April have no row.")).toBeTruthy();
  });

  it("what is said of the first file stays to be read", async () => {
    let view = empty;
    const taken = { taken: 90, level: "keyword", same: false, refused: [], notices: ["No days."] };
    await showOnPlan(<Learn />, {
      "GET /learn": () => ({ body: view }),
      "POST /results": () => {
        view = april;
        return { body: { ...taken, summary: summaryOf(2) } };
      },
    });
    await screen.findByRole("button", { name: "Choose files" });
    const input = document.querySelector<HTMLInputElement>("input[type=file]")!;
    await userEvent.upload(input, new File(["day"], "april.csv"));
    expect(await screen.findByRole("radio", { name: "Results in", checked: true })).toBeTruthy();
    expect(screen.getByText("No days.")).toBeTruthy();
  });

  it("says what was taken, what was refused and why, and can be read another way", async () => {
    const refused = { row: 7, column: "day", value: "soon", why: "expected a date" };
    const taken = {
      taken: 90,
      level: "keyword",
      same: false,
      refused: [refused],
      notices: ["One day twice."],
    };
    const asked = await showOnPlan(<ResultsIn view={empty} onSaid={() => undefined} />, {
      "POST /results": () => ({ body: { ...taken, summary: summaryOf(1) } }),
      "POST /results/headings": () => ({
        body: { headings: ["day"], columns: { day: 0 }, fields: { day: "day", clicks: "clicks" } },
      }),
    });
    await screen.findByRole("button", { name: "Choose files" });
    const input = document.querySelector<HTMLInputElement>("input[type=file]")!;
    await userEvent.upload(input, new File(["day"], "april.csv"));
    const said = await screen.findByText("april.csv");
    expect(said.closest("section")!.textContent).toContain("90 rows by keyword. 1 row refused.");
    expect(screen.getByText("row 7, day: expected a date")).toBeTruthy();
    expect(screen.getByText("One day twice.")).toBeTruthy();
    await click("say which columns …");
    expect(await screen.findByRole("region", { name: "Which columns hold what" })).toBeTruthy();
    expect(asked.map((each) => each.path)).toEqual(["/results", "/results/headings"]);
  });
});

describe("what only a person can count", () => {
  const shown = (answer: () => { status?: number; body: unknown }) =>
    showOnPlan(<Counted view={april} />, {
      "POST /learn/counted": answer,
      "POST /learn/site": answer,
    });

  it("customers of some days are counted, with what they bought for", async () => {
    const asked = await shown(() => ({ body: changed }));
    await enter("Customers counted", "3");
    await enter("What they bought for", "250.50");
    await enter("Counted from", "10 April 2027");
    await click("Count them");
    await waitFor(() =>
      expect(asked.at(-1)?.body).toEqual({
        ...{ campaign: "", since: "2027-04-10", until: "2027-04-30", customers: 3, value: 250.5 },
      }),
    );
    await waitFor(() =>
      expect(screen.getByLabelText("Customers counted")).toHaveProperty("value", ""),
    );
  });

  it("what was typed stays where it is refused", async () => {
    await shown(notNow);
    await enter("Visits of the whole site", "900");
    await click("Note it");
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(screen.getByLabelText("Visits of the whole site")).toHaveProperty("value", "900");
  });

  it.each(["-1", "three"])("%s is no count", async (typed) => {
    await shown(notNow);
    await enter("Customers counted", typed);
    await waitFor(() =>
      expect(screen.getByLabelText("Customers counted").getAttribute("aria-invalid")).toBe("true"),
    );
    expect(screen.getByRole("button", { name: "Count them" }).hasAttribute("disabled")).toBe(true);
  });
});
