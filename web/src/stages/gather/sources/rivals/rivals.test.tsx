import { screen, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { showOnPlan } from "../../../../testing-plan";
import { RivalsTable } from "./RivalsTable";
import { seenSaid } from "./MonthStrip";
import { ordered, rowsOf, type Rivals } from "./rows";

const seen = (name: string[], cost: (number | null)[] = name.map(() => 60)) => ({
  name,
  rivals: name.map(() => [0]),
  days: name.map(() => 30),
  running: name.map(() => true),
  months: name.map(() => [0, 2]),
  position: name.map(() => 1.5),
  clicks: name.map(() => 30),
  clicks_share: name.map(() => 0.25),
  monthly_cost: cost,
  ads: name.map(() => []),
  pages: name.map(() => ["https://www.bright.example/sash"]),
});
const view: Rivals = {
  name: "r.csv",
  at: "",
  rivals: ["Brightsash"],
  of: null,
  months: ["2026-01", "2026-02", "2026-03"],
  both: 1,
  only_they: 2,
  only_we: 3,
  keywords: {
    ...seen(["shutter repair", "oak door", "sash repair"], [10, null, 60]),
    ours: [false, false, true],
    would_bring: [0.2, 0.1, null],
    unknown_why: "",
  },
  ads: {
    ...seen(["Doors", "Shutters"]),
    keywords: [["oak door", "sash repair"], ["shutter repair"]],
  },
  totals: {
    ...seen(["Brightsash"]),
    keywords: [3],
    shared: [1],
    alone: [3],
    running_keywords: [2],
  },
  shared: {
    rivals: ["Brightsash"],
    counts: [
      [4, 1],
      [1, 3],
    ],
  },
  changes: [{ rival: "Brightsash", new: ["oak door"], given_up: [] }],
  refused: [],
};
const shown = async (take = vi.fn(), whose = vi.fn()) => {
  await showOnPlan(<RivalsTable view={view} busy={false} onTake={take} onRival={whose} />);
  return { take, whose };
};

it("an ad's keywords that only they buy go to the tray", async () => {
  const { take } = await shown();
  expect(screen.getByText(/Brightsash began 1 and gave up 0/)).toBeTruthy();
  await userEvent.click(screen.getByRole("radio", { name: "2 by ad" }));
  await userEvent.click(screen.getByText(/Put 2 into the tray/));
  expect(take).toHaveBeenLastCalledWith(["shutter repair", "oak door"]);
  await userEvent.click(screen.getByRole("radio", { name: "1 both buy" }));
  expect(screen.queryByText(/into the tray/)).toBeNull();
});

it("only what the words let through goes to the tray", async () => {
  const { take } = await shown();
  await userEvent.type(screen.getByLabelText("Words in, -words out"), "-shutter");
  await userEvent.click(screen.getByText(/Put 1 into the tray/));
  expect(take).toHaveBeenLastCalledWith(["oak door"]);
});

it("a rival's own part is asked for, and each stands in sum beside what two both buy", async () => {
  const { whose } = await shown();
  await userEvent.click(screen.getByRole("button", { name: /Whose/ }));
  await userEvent.click(await screen.findByRole("option", { name: "Brightsash" }));
  expect(whose).toHaveBeenLastCalledWith("Brightsash");
  await userEvent.click(screen.getByRole("radio", { name: "1 by rival" }));
  const matrix = within(screen.getByRole("region", { name: "Keywords that two both buy" }));
  const cells = matrix.getAllByRole("cell").map((cell) => cell.textContent);
  expect(cells.filter(Boolean)).toEqual(["4", "1", "1", "3"]);
  expect(screen.getByRole("grid", { name: "Rivals in sum" })).toBeTruthy();
});

it("months seen are said as runs", () => {
  const months = ["2026-01", "2026-02", "2026-03", "2026-04"];
  expect(seenSaid(months, [0, 1, 3])).toBe("2026-01 to 2026-02, 2026-04");
  expect(seenSaid(months, [])).toBe("no month known");
});

it("rows without a value come last, whichever way they are ordered", () => {
  const rows = rowsOf(view, "they", "");
  const cost = (row: number) => view.keywords.monthly_cost[row];
  expect(ordered(rows, { by: "cost", down: true }, cost)).toEqual([0, 1]);
  expect(ordered([1, 0, 2], { by: "cost", down: false }, cost)).toEqual([0, 2, 1]);
});
