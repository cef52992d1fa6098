import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../data/client";
import { summaryOf, refusal, showOnPlan } from "../../testing-plan";
import { HandOver } from "./HandOver";

type View = Schemas["HandOverView"];

const item: Schemas["HandOverItem"] = {
  id: 7,
  kind: "csv",
  filename: "a-plan-upload-r1.csv",
  at: "2026-09-01T10:00:00+00:00",
  revision: 1,
  rows: 2,
  sha256: "0123456789abcdef",
};

const view = (changes: Partial<View> = {}): View => ({
  revision: 1,
  rows: [
    {
      campaign: "A plan – Search",
      group: "Repair",
      keyword: "sash repair",
      match: "exact",
      bid: 1.5,
      ref: "k1",
    },
    {
      campaign: "A plan – Search",
      group: "Repair",
      keyword: "sash cord",
      match: "phrase",
      bid: null,
      ref: "k1",
    },
  ],
  checks: [{ text: "1 keyword is not yet called.", stage: "sift" }],
  sent: [],
  ...changes,
});

const shown = (answers = {}, changes: Partial<View> = {}) =>
  showOnPlan(<HandOver />, { "GET /hand-over": () => ({ body: view(changes) }), ...answers });

it("says how many run, and lists what to look at with the way there", async () => {
  await shown();
  expect(await screen.findByText("1 keyword run, 1 kept but not run")).toBeTruthy();
  expect(screen.getByText(/1 keyword is not yet called/)).toBeTruthy();
  expect(screen.getByText("look").getAttribute("href")).toBe("/plan/1/sift");
});

it("says so where nothing stands out and nothing was sent", async () => {
  await shown({}, { checks: [] });
  expect(await screen.findByText("Nothing stands out.")).toBeTruthy();
  expect(screen.getByText(/Nothing yet/)).toBeTruthy();
});

it("an empty plan has no sheet to take away, but can be taken whole", async () => {
  await shown({}, { rows: [] });
  expect(await screen.findByText(/nothing to upload/)).toBeTruthy();
  expect(screen.getByText("Upload sheet, CSV").hasAttribute("disabled")).toBe(true);
  expect(screen.getByText("Whole plan, JSON").hasAttribute("disabled")).toBe(false);
});

it.each([
  ["Upload sheet, CSV", "csv"],
  ["Upload sheet, XLSX", "xlsx"],
  ["Whole plan, JSON", "json"],
])("%s asks for a frozen copy and takes it away", async (label, kind) => {
  const taken = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
  const asked = await shown({
    "POST /hand-over": () => ({ status: 201, body: { made: item, summary: summaryOf(1) } }),
  });
  await screen.findByText("1 keyword run, 1 kept but not run");
  await userEvent.click(screen.getByText(label));
  await waitFor(() => expect(taken).toHaveBeenCalledTimes(1));
  expect(asked).toEqual([{ method: "POST", path: "/hand-over", body: { kind } }]);
  expect(screen.getByTestId("said").textContent).toContain(item.filename);
  taken.mockRestore();
});

it("what was sent stays to be fetched, byte for byte", async () => {
  await shown({}, { sent: [item] });
  const link = await screen.findByText(item.filename);
  expect(link.getAttribute("href")).toBe("/api/plans/1/hand-over/7/file");
  expect(screen.getByText("SHA-256 0123456789ab…").getAttribute("title")).toBe(item.sha256);
  expect(screen.getByText(/2 rows · revision 1/)).toBeTruthy();
});

it("a hand-over that fails is said, and nothing is taken away", async () => {
  const taken = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
  await shown({ "POST /hand-over": () => ({ status: 422, body: refusal("the disk is full") }) });
  await screen.findByText("1 keyword run, 1 kept but not run");
  await userEvent.click(screen.getByText("Upload sheet, CSV"));
  await waitFor(() => expect(screen.getByTestId("said").textContent).toContain("disk is full"));
  expect(taken).not.toHaveBeenCalled();
  taken.mockRestore();
});
