import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { giveSizes } from "../../../testing-layout";
import { done, show } from "../testing-arrange";

beforeAll(giveSizes);

const works = {
  stops: 1,
  texts: ["sash jobs"],
  terms: 0,
  saves: 0,
  hurts: [],
  hurt: 0,
  sold: [],
  customers: 0,
  spend: 0,
};

it("what to block next is taken one by one or all at once, and what is pasted is read first", async () => {
  const asked = await show({
    "GET /arrange/negatives": () => ({
      body: {
        revision: 1,
        saves: 9.5,
        negatives: [
          {
            ...works,
            id: 7,
            text: "cord",
            match: "phrase",
            level: "plan",
            where: "",
            by: "hand",
            at: "2026-11-20T10:00:00Z",
            note: "",
            hurt: 2,
            hurts: ["sash cord"],
          },
        ],
        to_block: [
          {
            text: "jobs",
            match: "phrase",
            saves: 6.5,
            source: "warning",
            stops: 3,
            uncalled: 1,
            texts: [],
          },
          {
            text: "diy",
            match: "phrase",
            saves: 3,
            source: "dropped",
            stops: 1,
            uncalled: 0,
            texts: [],
          },
        ],
      },
    }),
    "POST /arrange/negatives/read": () => ({
      body: {
        revision: 1,
        lines: [
          { ...works, line: 1, text: "free", match: "phrase", refused: "", narrower: null },
          {
            ...works,
            line: 2,
            text: "sash",
            match: "phrase",
            refused: "",
            hurt: 9,
            hurts: ["sash repair"],
            narrower: { text: "old sash", match: "phrase" },
          },
        ],
      },
    }),
    "POST /arrange/negatives": done,
  });
  await userEvent.click(await screen.findByRole("radio", { name: "Negatives 1" }));
  expect(screen.getByText("2 kept")).toBeTruthy();
  expect(screen.getByText(/Together 9.50/)).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "block all 2" }));
  await waitFor(() =>
    expect(asked.at(-1)!.body).toMatchObject({
      by: "advice",
      items: [{ text: "jobs" }, { text: "diy" }],
    }),
  );
  await userEvent.click(screen.getByRole("button", { name: "add …" }));
  await userEvent.type(screen.getByLabelText("Negatives, one a line"), "free\nsash");
  expect(await screen.findByText("hurts sash repair")).toBeTruthy();
  await userEvent.click(screen.getByRole("button", { name: "Add 1 negative" }));
  const added = () => asked.find(({ body }) => (body as { by?: string }).by === "hand");
  await waitFor(() => expect(added()?.body).toMatchObject({ items: [{ text: "free" }] }));
  expect(screen.getByLabelText("Negatives, one a line")).toHaveProperty("value", "sash");
});
