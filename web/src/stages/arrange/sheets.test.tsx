import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { refusal, showOnPlan } from "../../testing-plan";
import { Conflicts } from "./Conflicts";
import { MoveSheet } from "./MoveSheet";
import { NameSheet } from "./NameSheet";
import { ScoutingSheet } from "./ScoutingSheet";
import { StructureSheet } from "./StructureSheet";
import { done, view } from "./testing-arrange";

const notNow = () => ({ status: 422, body: refusal("not now") });
const click = async (name: string | RegExp) =>
  userEvent.click(await screen.findByRole("button", { name }));
const rewrite = async (label: string, text: string) => {
  await userEvent.clear(await screen.findByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), `${text}{Enter}`);
};

describe("names by a rule", () => {
  const names = {
    revision: 1,
    changes: 1,
    names: [
      { group_id: 1, before: "Repair", after: "repair · exact", refused: "" },
      { group_id: 2, before: "Cords", after: "", refused: "a name of 1 to 120 characters" },
    ],
  };
  const answers = {
    "POST /arrange/names/look": () => ({ body: names }),
    "POST /arrange/names": done,
  };

  it("shows every name before one is changed, and why one can’t be", async () => {
    const onOpen = vi.fn();
    const asked = await showOnPlan(<NameSheet open onOpen={onOpen} groups={[1, 2]} />, answers);
    const lines = within(await screen.findByRole("list", { name: "Names" })).getAllByRole(
      "listitem",
    );
    expect(lines.map((line) => line.textContent)).toEqual([
      "Repair → repair · exact ",
      "Cords →  a name of 1 to 120 characters",
    ]);
    await click("Name 1 group");
    await waitFor(() => expect(onOpen).toHaveBeenCalledWith(false));
    expect(asked.at(-1)!.body).toEqual({
      ...{ parts: ["theme", "match"], separator: " · ", note: "", group_ids: [1, 2] },
    });
  });

  it("is put together of parts, parted as is said", async () => {
    const asked = await showOnPlan(<NameSheet open onOpen={vi.fn()} groups={[]} />, answers);
    await click("Leave out the match type");
    await click(/Further part of a name/);
    await userEvent.click(await screen.findByRole("option", { name: "a note" }));
    await rewrite("The note in a name", "spring");
    await rewrite("What parts a name", "-");
    await waitFor(() =>
      expect(asked.at(-1)!.body).toEqual({
        ...{ parts: ["theme", "note"], separator: "-", note: "spring", group_ids: [] },
      }),
    );
  });

  it("says why there are no names, and names nothing", async () => {
    await showOnPlan(<NameSheet open onOpen={vi.fn()} groups={[]} />, {
      "POST /arrange/names/look": notNow,
    });
    expect((await screen.findByRole("alert")).textContent).toBe("not now try again");
    const go = screen.getByRole("button", { name: "Name 0 groups" });
    expect(go.hasAttribute("disabled")).toBe(true);
  });
});

describe("a scouting campaign", () => {
  const look = {
    ...{ revision: 1, bid: 0.4, blocked: 1, cost: 30, low_price: 0.8, there: false },
    keywords: ["sash windows", "windows"],
  };
  const shown = (answers: object, onOpen = vi.fn()) =>
    showOnPlan(<ScoutingSheet open onOpen={onOpen} />, {
      "POST /arrange/scouting/look": () => ({ body: look }),
      ...answers,
    });

  it("says what it costs and holds, and is made as it is said", async () => {
    const onOpen = vi.fn();
    const asked = await shown({ "POST /arrange/scouting": done }, onOpen);
    expect(await screen.findByText(/1 known text is blocked in it/)).toBeTruthy();
    const wide = screen.getByRole("list", { name: "Wide keywords" });
    expect(
      within(wide)
        .getAllByRole("listitem")
        .map((li) => li.textContent),
    ).toEqual(look.keywords);
    await rewrite("Share of the purse for scouting, per cent", "8");
    await rewrite("Bid of a scout", "0.5");
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ share: 0.08, bid: 0.5 }));
    await click("Make it");
    await waitFor(() => expect(onOpen).toHaveBeenCalledWith(false));
    const made = asked.find(({ path }) => path === "/arrange/scouting");
    expect(made!.body).toEqual({ share: 0.08, bid: 0.5 });
  });

  it.each(["0", "101", "some"])("takes no %s for a share", async (typed) => {
    await shown({});
    const label = "Share of the purse for scouting, per cent";
    await rewrite(label, typed);
    await waitFor(() =>
      expect(screen.getByLabelText(label).getAttribute("aria-invalid")).toBe("true"),
    );
  });

  it.each([
    ["There is one already.", () => ({ body: { ...look, there: true } })],
    ["not now", notNow],
  ])("is not made where “%s”", async (said, answer) => {
    await shown({ "POST /arrange/scouting/look": answer });
    expect(await screen.findByText(said)).toBeTruthy();
    expect(screen.getByRole("button", { name: "Make it" }).hasAttribute("disabled")).toBe(true);
  });
});

describe("keywords on the move", () => {
  const shown = async (answer: () => { status?: number; body: unknown }) => {
    const onMoved = vi.fn();
    const asked = await showOnPlan(
      <MoveSheet
        open
        onOpen={vi.fn()}
        ids={[4, 5]}
        from="Repair"
        groups={["Repair", "Cords"]}
        onMoved={onMoved}
      />,
      { "POST /arrange/move": answer },
    );
    return { asked, onMoved };
  };

  it("go to another group, and not to the one they are in", async () => {
    const { asked, onMoved } = await shown(done);
    const field = await screen.findByRole("combobox");
    expect(
      [...document.querySelectorAll("datalist option")].map((o) => o.getAttribute("value")),
    ).toEqual(["Cords"]);
    await userEvent.type(field, "Cords{Enter}");
    await waitFor(() => expect(onMoved).toHaveBeenCalled());
    expect(asked.at(-1)!.body).toEqual({ ids: [4, 5], group: "Cords" });
  });

  it("stay where it is refused, and the name that was typed with them", async () => {
    const { onMoved } = await shown(notNow);
    await userEvent.type(await screen.findByRole("combobox"), "Cords{Enter}");
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(onMoved).not.toHaveBeenCalled();
    expect(screen.getByRole("combobox")).toHaveProperty("value", "Cords");
  });

  it("go nowhere without a name", async () => {
    await shown(done);
    await userEvent.type(await screen.findByRole("combobox"), "   ");
    expect(screen.getByRole("button", { name: /Move/ }).hasAttribute("disabled")).toBe(true);
  });
});

describe("ready structures", () => {
  it("say why they can’t be looked at", async () => {
    await showOnPlan(<StructureSheet open onOpen={vi.fn()} groups={[]} />, {
      "POST /arrange/structures": notNow,
    });
    expect((await screen.findByRole("alert")).textContent).toBe("not now try again");
  });

  it("say so of one that can’t be fitted, and the others stand", async () => {
    const now = {
      ...{ revision: 1, customers: 2, spend: 150, clicks: 60, running: 3, groups: 3 },
      ...{ to_write: 1, bids_set: 0 },
    };
    const item = { groups: 6, moves: 3, adds: 0, largest: 1, campaigns: ["One"] };
    const items = [
      { ...item, kind: "theme", says: "one campaign" },
      { ...item, kind: "match", says: "exact and phrase" },
    ];
    const limits = { most: 20, keywords_per_group: 150, platform: "Kestrel" };
    await showOnPlan(<StructureSheet open onOpen={vi.fn()} groups={[]} />, {
      "POST /arrange/structures": () => ({ body: { revision: 1, items, limits, now } }),
      "POST /arrange/structures/fit": ({ body }) =>
        (body as { kind: string }).kind === "theme" ? { body: now } : notNow(),
    });
    expect((await screen.findByRole("alert")).textContent).toBe("not now try again");
    expect(await screen.findByText(/customers for 150.00 GBP, now/)).toBeTruthy();
    expect(screen.getByText("fitted 1 of 2")).toBeTruthy();
  });
});

describe("conflicts", () => {
  const [stops] = view.conflicts;
  const none = { negative: "", negative_id: null, ids: [], terms: [] };
  const shown = (conflict: object, path: string) =>
    showOnPlan(<Conflicts conflicts={[{ ...stops!, ...conflict }]} />, { [`POST ${path}`]: done });

  it("names six and counts the rest", async () => {
    const texts = ["a1", "a2", "a3", "a4", "a5", "a6", "a7"];
    await shown({ texts, count: 9 }, "/negatives/remove");
    expect(await screen.findByText("a1, a2, a3, a4, a5, a6 and 3 more")).toBeTruthy();
    expect(screen.getByText("550 searches, 0.74 customers, 28.10 GBP a month.")).toBeTruthy();
  });

  it.each([
    ["take “cord” out", {}, "/negatives/remove", { ids: [7] }],
    [
      "use the list House no longer",
      { ...none, pinned: "House", pinned_id: 4 },
      "/arrange/lists/pinned/4/leave",
      null,
    ],
    [
      "leave the texts to the exact ones",
      { ...none, kind: "twins_unblocked", group_id: 2 },
      "/arrange/groups/2",
      { blocks_twins: true },
    ],
    [
      "block 1 text in the campaign",
      { ...none, to_block: ["sash"], campaign_id: 1 },
      "/arrange/negatives",
      {
        ...{ items: [{ text: "sash", match: "exact" }], note: "", by: "advice" },
        ...{ campaign_id: 1, group_id: null },
      },
    ],
  ] as [string, object, string, unknown][])("%s", async (name, conflict, path, body) => {
    const asked = await shown(conflict, path);
    await click(name);
    await waitFor(() => expect(asked.at(-1)).toMatchObject({ path, body }));
  });

  it("says so where nothing gets in each other’s way", async () => {
    await showOnPlan(<Conflicts conflicts={[]} />);
    expect(await screen.findByText(/Nothing gets in each other’s way/)).toBeTruthy();
  });
});
