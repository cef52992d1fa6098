import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, refusal, showOnPlan } from "../../../testing-plan";
import { AlmanacSource } from "./AlmanacSource";
import { CrossingSource } from "./CrossingSource";
import { NeverWanted } from "./NeverWanted";
import { PageSource } from "./PageSource";

const notNow = () => ({ status: 422, body: refusal("not now") });
const click = async (name: string | RegExp) =>
  userEvent.click(await screen.findByRole("button", { name }));
const choose = async (label: RegExp, option: RegExp) => {
  await click(label);
  await userEvent.click(await screen.findByRole("option", { name: option }));
};
const rewrite = async (label: string, text: string) => {
  await userEvent.clear(await screen.findByLabelText(label));
  await userEvent.type(screen.getByLabelText(label), text);
};

describe("the almanac", () => {
  const roots = "Root words, between commas";
  const answers = {
    "POST /gather/almanac": () => ({ body: { key: "t1", more: true } }),
    "GET /gather/completions": () => ({ body: { texts: ["sash cord cost"] } }),
  };

  it("is asked for the roots page by page, and says that its figures are made up", async () => {
    const onTray = vi.fn();
    const asked = await showOnPlan(<AlmanacSource onTray={onTray} />, answers);
    expect(screen.getByText("It is simulated")).toBeTruthy();
    await rewrite(roots, "sash cord,  oak sash , {Enter}");
    await waitFor(() => expect(onTray).toHaveBeenCalledTimes(1));
    const body = { roots: ["sash cord", "oak sash"], page: 0, near_only: false, only_these: false };
    expect(asked.at(-1)!.body).toEqual(body);
    const [, more] = onTray.mock.calls[0] as [unknown, () => Promise<unknown>];
    await more();
    expect(asked.at(-1)!.body).toEqual({ ...body, page: 1 });
  });

  it("can be kept near to the root", async () => {
    const asked = await showOnPlan(<AlmanacSource onTray={vi.fn()} />, answers);
    await rewrite(roots, "sash");
    await choose(/How near to the root/, /near only/);
    await click("Ask the almanac");
    await waitFor(() => expect(asked.at(-1)!.body).toMatchObject({ near_only: true }));
  });

  it("what people type after a root becomes a root by one press", async () => {
    await showOnPlan(<AlmanacSource onTray={vi.fn()} />, answers);
    await rewrite(roots, "sash cord");
    await click("What people type after it");
    await click("sash cord cost");
    expect(screen.getByLabelText(roots)).toHaveProperty("value", "sash cord, sash cord cost");
  });

  it("is not asked for nothing, and says what went wrong", async () => {
    await showOnPlan(<AlmanacSource onTray={vi.fn()} />, { "POST /gather/almanac": notNow });
    await rewrite(roots, " , ");
    const ask = screen.getByRole("button", { name: "Ask the almanac" });
    expect(ask.hasAttribute("disabled")).toBe(true);
    await rewrite(roots, "sash");
    await userEvent.click(ask);
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(ask.hasAttribute("disabled")).toBe(false);
  });
});

describe("a crossing", () => {
  const made = { count: 4, doubles: 0, known: 0, preview: ["sash cost"] };
  const answers = {
    "GET /recipes": () => ({
      body: [{ id: 1, name: "cords", parts: [{ words: ["cord"], on: true, optional: false }] }],
    }),
    "POST /gather/crossing": () => ({ body: made }),
    "POST /recipes": () => ({ body: changeOf({ did: "save" }) }),
  };
  const parts = (asked: { path: string; body: unknown }[]) =>
    (asked.filter(({ path }) => path === "/gather/crossing").at(-1)!.body as { parts: unknown[] })
      .parts;

  it("is worked out anew with every list: what takes part, what may be left out, in which order", async () => {
    const asked = await showOnPlan(<CrossingSource onTray={vi.fn()} />, answers);
    await rewrite("List 2, words between commas", "price, quote{Enter}");
    await userEvent.click(screen.getByRole("checkbox", { name: "List 3 takes part" }));
    await userEvent.click(screen.getByRole("checkbox", { name: "List 2 may be left out" }));
    await userEvent.click(screen.getByRole("checkbox", { name: "In any order" }));
    await waitFor(() =>
      expect(asked.at(-1)!.body).toMatchObject({
        any_order: true,
        parts: [{}, { words: ["price", "quote"], on: true, optional: false }, { on: false }],
      }),
    );
    expect(await screen.findByText("… and 3 more")).toBeTruthy();
  });

  it("says why it can’t be made, and makes nothing of it", async () => {
    const asked = await showOnPlan(<CrossingSource onTray={vi.fn()} />, {
      ...answers,
      "POST /gather/crossing": () => ({ status: 422, body: refusal("expected at most 100,000") }),
    });
    expect(await screen.findByText("expected at most 100,000")).toBeTruthy();
    const put = screen.getByRole("button", { name: "Put 0 into the tray" });
    expect(put.hasAttribute("disabled")).toBe(true);
    expect(asked.some(({ path }) => path.endsWith("/tray"))).toBe(false);
  });

  it("goes into the tray as it stands", async () => {
    const onTray = vi.fn();
    await showOnPlan(<CrossingSource onTray={onTray} />, {
      ...answers,
      "POST /gather/crossing/tray": () => ({ body: { key: "t2" } }),
    });
    await click("Put 4 into the tray");
    await waitFor(() => expect(onTray).toHaveBeenCalledWith({ key: "t2" }));
  });

  it("is kept under a name, and made again by it", async () => {
    const asked = await showOnPlan(<CrossingSource onTray={vi.fn()} />, answers);
    expect((await screen.findByRole("button", { name: "Save" })).hasAttribute("disabled")).toBe(
      true,
    );
    await userEvent.type(screen.getByLabelText("Name of the crossing"), "  costs ");
    await click("Save");
    await waitFor(() =>
      expect(screen.getByLabelText("Name of the crossing")).toHaveProperty("value", ""),
    );
    expect(
      asked.find(({ method, path }) => method === "POST" && path === "/recipes")!.body,
    ).toMatchObject({
      name: "costs",
    });
    await click("cords");
    await waitFor(() =>
      expect(parts(asked)).toEqual([{ words: ["cord"], on: true, optional: false }]),
    );
  });

  it("has six lists at most", async () => {
    await showOnPlan(<CrossingSource onTray={vi.fn()} />, answers);
    for (let more = 0; more < 3; more++) await click("another list");
    expect(screen.getByRole("button", { name: "another list" }).hasAttribute("disabled")).toBe(
      true,
    );
  });
});

describe("words never wanted", () => {
  const held = [
    { id: 7, text: "jobs", match: "broad", level: "plan", by: "hand", at: "2026-05-01T01:00:00Z" },
  ];

  it("are taken out again one by one", async () => {
    const asked = await showOnPlan(<NeverWanted />, {
      "GET /negatives": () => ({ body: held }),
      "POST /negatives/remove": notNow,
    });
    await click("Take out jobs");
    await waitFor(() => expect(asked.at(-1)!.body).toEqual({ ids: [7] }));
  });

  it("are told with the planner’s own day, not Greenwich’s", async () => {
    await showOnPlan(<NeverWanted />, { "GET /negatives": () => ({ body: held }) });
    expect(await screen.findByText("2026-04-30")).toBeTruthy();
  });

  it("what was typed stays where it is refused", async () => {
    await showOnPlan(<NeverWanted />, {
      "GET /negatives": () => ({ body: [] }),
      "POST /negatives": notNow,
    });
    expect(await screen.findByText("No word is blocked yet.")).toBeTruthy();
    const label = "Words never wanted, between commas";
    await userEvent.type(screen.getByLabelText(label), "free{Enter}");
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(screen.getByLabelText(label)).toHaveProperty("value", "free");
  });
});

describe("a page", () => {
  const words = ["sash", "cord", "oak"].map((text, at) => ({ text, weight: 9 - at }));

  it("is weighed out of a saved file, and the words that are left picked are looked up", async () => {
    const onTray = vi.fn();
    const asked = await showOnPlan(<PageSource onTray={onTray} />, {
      "POST /gather/page": () => ({ body: words }),
      "POST /gather/almanac": () => ({ body: { key: "t3" } }),
    });
    const input = document.querySelector<HTMLInputElement>("input[type=file]")!;
    await userEvent.upload(input, new File(["<h1>Sash</h1>"], "page.html", { type: "text/html" }));
    await click("cord 8");
    await click("Look 2 keywords up in the almanac");
    await waitFor(() => expect(onTray).toHaveBeenCalledWith({ key: "t3" }));
    expect(asked.map(({ body }) => body)).toMatchObject([
      { content: "<h1>Sash</h1>" },
      { roots: ["sash", "oak"], only_these: true },
    ]);
  });

  it("what was pasted stays where it is refused", async () => {
    await showOnPlan(<PageSource onTray={vi.fn()} />, { "POST /gather/page": notNow });
    await userEvent.type(screen.getByLabelText("Page text or HTML"), "sash cord");
    await click("Weigh its words");
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("not now"));
    expect(screen.getByLabelText("Page text or HTML")).toHaveProperty("value", "sash cord");
  });
});
