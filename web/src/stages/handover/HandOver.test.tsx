import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import type { Schemas } from "../../data/client";
import { refusal, showOnPlan } from "../../testing-plan";
import { summaryOf } from "../../testing-summary";
import { HandOver } from "./HandOver";

type View = Schemas["HandOverView"];

const item: Schemas["HandOverItem"] = {
  id: 7,
  at: "2026-09-01T10:00:00+00:00",
  revision: 1,
  label: "",
  status: "written",
  runs_from: null,
  note: "",
  points: ["1 keyword is not yet called."],
  files: [
    { id: 3, kind: "csv", filename: "a-plan-upload-r1.csv", rows: 2, sha256: "0123456789ab" },
  ],
  comparable: true,
};

const shapeOf = (...names: string[]) =>
  names.map((name) => ({ sheet: "keywords", column: name, heading: name, sent: true }));

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
  counts: { keywords: 2, campaigns: 1, groups: 1, negatives: 0, ads: 0, spots: 0 },
  changed: null,
  shapes: { keywords: shapeOf("campaign", "keyword", "bid"), ads: [] },
  file_name: "‹plan›-‹what›",
  file_name_words: ["plan", "what"],
  checks: [
    {
      code: "over_ceiling",
      text: "1 bid is above its ceiling.",
      stage: "fit",
      must: false,
      names: ["sash repair"],
      mend: "give the bids back to the policy",
    },
    {
      code: "uncalled",
      text: "1 keyword is not yet called.",
      stage: "sift",
      must: false,
      names: [],
      mend: "",
    },
  ],
  sent: [],
  ...changes,
});

const shown = (answers = {}, changes: Partial<View> = {}) =>
  showOnPlan(<HandOver />, { "GET /hand-over": () => ({ body: view(changes) }), ...answers });

it("says how many run, and lists what to look at with the way there and its mend", async () => {
  const asked = await shown({
    "POST /hand-over/mend": () => ({ status: 422, body: refusal("not now") }),
  });
  expect(await screen.findByText("1 keyword run, 1 kept but not run")).toBeTruthy();
  const way = screen.getByLabelText("look: 1 keyword is not yet called.");
  expect(way.getAttribute("href")).toBe("/plan/1/sift");
  await userEvent.click(screen.getByText(/give the bids back/));
  await waitFor(() => expect(asked.at(-1)!.body).toEqual({ code: "over_ceiling" }));
});

it("the checks are counted where they are folded, and unfolded by a press", async () => {
  await shown();
  const fold = await screen.findByText("show them");
  expect(fold.closest("p")!.textContent).toMatch(/^0 to be mended, 2 to look at: /);
  expect(fold.getAttribute("aria-expanded")).toBe("false");
  await userEvent.click(fold);
  const back = screen.getByText("fold them away");
  expect(back.getAttribute("aria-expanded")).toBe("true");
});

it("says so where nothing stands out and nothing was sent", async () => {
  await shown({}, { checks: [] });
  expect(await screen.findByText("Nothing stands out.")).toBeTruthy();
  await userEvent.click(screen.getByText("What was sent 0"));
  expect(screen.getByText(/Nothing yet/)).toBeTruthy();
});

it("an empty plan has no sheet to send, but can be sent whole", async () => {
  await shown({}, { rows: [] });
  expect(await screen.findByText(/nothing to upload/)).toBeTruthy();
  expect(screen.getByText("Send CSV").hasAttribute("disabled")).toBe(true);
  expect(screen.getByText("Send the plan, JSON").hasAttribute("disabled")).toBe(false);
});

it.each([
  ["Send CSV", { kind: "csv", sheets: ["keywords"], only: "all" }],
  [
    "Send all sheets, XLSX",
    { kind: "xlsx", sheets: ["keywords", "campaigns", "groups"], only: "all" },
  ],
  ["Send the plan, JSON", { kind: "json", sheets: ["keywords"], only: "all" }],
])("%s sends, keeps a copy and takes it away", async (label, body) => {
  const taken = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
  const asked = await shown({
    "POST /hand-over": () => ({ status: 201, body: { made: item, summary: summaryOf(1) } }),
  });
  await screen.findByText("1 keyword run, 1 kept but not run");
  await userEvent.click(screen.getByText(label));
  await waitFor(() => expect(taken).toHaveBeenCalledTimes(1));
  expect(asked).toEqual([{ method: "POST", path: "/hand-over", body }]);
  expect(screen.getByTestId("said").textContent).toContain(item.files[0]!.filename);
  taken.mockRestore();
});

it("what was sent stays to be fetched, byte for byte, with what was open then", async () => {
  await shown({}, { sent: [item] });
  await screen.findByText("1 keyword run, 1 kept but not run");
  await userEvent.click(screen.getByText("What was sent 1"));
  const link = screen.getByText("a-plan-upload-r1.csv (2 rows)");
  expect(link.getAttribute("href")).toBe("/api/plans/1/hand-over/7/files/3");
  expect(link.getAttribute("title")).toContain("0123456789ab");
  expect(screen.getByText(/Still open then: 1 keyword/)).toBeTruthy();
});

it("a hand-over that fails is said, and nothing is taken away", async () => {
  const taken = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(() => undefined);
  await shown({ "POST /hand-over": () => ({ status: 422, body: refusal("the disk is full") }) });
  await screen.findByText("1 keyword run, 1 kept but not run");
  await userEvent.click(screen.getByText("Send CSV"));
  await waitFor(() => expect(screen.getByTestId("said").textContent).toContain("disk is full"));
  expect(taken).not.toHaveBeenCalled();
  taken.mockRestore();
});

it("says which columns leave, in which order and under which heading, and how files are named", async () => {
  const summary = { summary: summaryOf(1) };
  const asked = await shown({ "POST /hand-over/shape": () => ({ body: summary }) });
  await userEvent.click(await screen.findByText("columns and names"));
  await userEvent.click(screen.getByLabelText("send campaign"));
  await waitFor(() =>
    expect(asked[0]?.body).toEqual({
      sheet: "keywords",
      columns: [{ column: "campaign", sent: false }],
    }),
  );
});
