import { screen, waitFor, within } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { refusal, showOnPlan } from "../testing-plan";
import { PlanList } from "./PlanList";

const plan = (id: number, name: string, more = {}) => ({
  ...{ id, client_id: id, client: `${name} Ltd`, version_of: null, label: "", is_plan: true },
  ...{ name, currency: "GBP", monthly_spend: 600, keywords: 9, created_at: "2027-01-01T00:00:00Z" },
  ...more,
});
const plans = [
  plan(1, "Sash"),
  plan(2, "Sash", { client_id: 1, client: "Sash Ltd", label: "May", is_plan: false, keywords: 1 }),
  plan(3, "Cords"),
];

const shown = async (answers = {}, close = vi.fn()) => {
  const asked = await showOnPlan(<PlanList close={close} />, {
    "GET /api/plans": () => ({ body: plans }),
    "GET /api/plans/deleted": () => ({ body: [] }),
    ...answers,
  });
  await screen.findByRole("heading", { name: "Cords Ltd" });
  return { asked, close };
};

it("plans stand under their clients, each version with its label", async () => {
  await shown();
  expect(screen.getAllByRole("heading").map((h) => h.textContent)).toEqual([
    "Sash Ltd",
    "Cords Ltd",
  ]);
  const lines = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(lines[0]).toContain("9 keywords, 600.00 GBP a month");
  expect(lines[1]).toContain("Sash · May");
  expect(lines[1]).toContain("1 keyword, 600.00 GBP a month, a version");
});

it("a copy is made under a name of its own, and what it says is said", async () => {
  const { asked, close } = await shown({
    "POST /api/plans/3/copy": () => ({ body: { id: 9, notices: ["its ads were left out"] } }),
  });
  await userEvent.click(screen.getByRole("button", { name: "Copy Cords" }));
  await waitFor(() => expect(close).toHaveBeenCalled());
  expect(asked[0]!.body).toEqual({ name: "Cords, copy" });
  expect(screen.getByTestId("said").textContent).toBe("its ads were left out");
});

it("another plan is deleted and the list stays open", async () => {
  const { asked, close } = await shown({ "DELETE /api/plans/3": () => ({ body: {} }) });
  await userEvent.click(screen.getByRole("button", { name: "Delete Cords" }));
  await waitFor(() => expect(asked.map((one) => one.path)).toEqual(["/api/plans/3"]));
  expect(close).not.toHaveBeenCalled();
});

it("what can’t be copied or deleted is said, and nothing moves", async () => {
  const no = () => ({ status: 422, body: refusal("it is being sent") });
  const { close } = await shown({ "DELETE /api/plans/3": no, "POST /api/plans/3/copy": no });
  for (const act of ["Copy", "Delete"]) {
    await userEvent.click(screen.getByRole("button", { name: `${act} Cords` }));
    await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("it is being sent"));
  }
  expect(close).not.toHaveBeenCalled();
  expect(within(document.body).getByRole("heading", { name: "Cords Ltd" })).toBeTruthy();
});

it("all clients are one press away", async () => {
  const { close } = await shown();
  await userEvent.click(screen.getByRole("button", { name: /^All clients/ }));
  expect(close).toHaveBeenCalled();
});
