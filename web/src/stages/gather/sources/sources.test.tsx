import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { changeOf, showOnPlan } from "../../../testing-plan";
import { CrossingSource } from "./CrossingSource";
import { NeverWanted } from "./NeverWanted";
import { PlacesSource } from "./PlacesSource";
import { StarterSource } from "./StarterSource";

const nothing = () => undefined;

it("words never wanted are sent with how they match, and are listed with by whom", async () => {
  const held = [
    { id: 1, text: "jobs", match: "phrase", level: "plan", by: "hand", at: "2026-05-01T10:00:00" },
  ];
  const asked = await showOnPlan(<NeverWanted />, {
    "GET /negatives": () => ({ body: held }),
    "POST /negatives": () => ({ body: changeOf({ did: "never want free" }) }),
  });
  expect(await screen.findByText("2026-05-01")).toBeTruthy();
  await userEvent.type(screen.getByLabelText("Words never wanted, between commas"), "free, course");
  await userEvent.click(screen.getByText("Never want these"));
  await waitFor(() =>
    expect(asked.find((a) => a.path === "/negatives" && a.body)?.body).toEqual({
      texts: ["free", "course"],
      match: "phrase",
    }),
  );
});

it("a crossing says how many it makes and what it leaves out", async () => {
  await showOnPlan(<CrossingSource onTray={nothing} />, {
    "GET /recipes": () => ({ body: [] }),
    "POST /gather/crossing": () => ({
      body: { count: 2, doubles: 1, known: 3, preview: ["sash cost", "sash quote"] },
    }),
  });
  expect(await screen.findByText("Put 2 into the tray")).toBeTruthy();
  expect(screen.getByText(/1 silly double, 3 already there/)).toBeTruthy();
  expect(screen.getByText("sash quote")).toBeTruthy();
});

it("other places are picked before anything is done with them", async () => {
  await showOnPlan(<PlacesSource onTray={nothing} />, {
    "GET /gather/places": () => ({ body: [{ name: "hollowbrook", keywords: 12 }] }),
  });
  const block = await screen.findByRole("button", { name: "Block 0 places" });
  expect(block.hasAttribute("disabled")).toBe(true);
  await userEvent.click(await screen.findByRole("button", { name: /hollowbrook/ }));
  expect(screen.getByRole("button", { name: "Block 1 place" }).hasAttribute("disabled")).toBe(
    false,
  );
});

it("the starter set shows what each keyword brings before it is kept", async () => {
  await showOnPlan(<StarterSource />, {
    "POST /gather/starter": () => ({
      body: {
        ids: [1],
        texts: ["gate post"],
        customers: [0.5],
        spend: [12.5],
        total_customers: 0.5,
        total_spend: 12.5,
        bound: 0.5,
      },
    }),
  });
  await userEvent.click(screen.getByText("Pick them"));
  expect(await screen.findByText("Keep these 1")).toBeTruthy();
  expect(screen.getByText("gate post")).toBeTruthy();
});
