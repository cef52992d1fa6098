import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { refusal, showOnPlan } from "../testing-plan";
import { Unreadable } from "./Unreadable";

const gone = { id: 3, name: "Cords", label: "", client: "Oakley" };
const deleted = { ...gone, deleted_at: "2027-03-02T01:00:00+00:00" };

it("a deleted plan is named and brought back where it was opened", async () => {
  const onBack = vi.fn();
  await showOnPlan(<Unreadable id={3} why="Plan 3 is deleted." onBack={onBack} />, {
    "GET /api/plans/deleted": () => ({ body: [deleted] }),
    "POST /api/plans/3/restore": () => ({ body: {} }),
  });
  expect(await screen.findByRole("heading", { name: "Cords" })).toBeTruthy();
  expect(screen.getByText(/It is deleted/)).toBeTruthy();
  expect(screen.queryByRole("button", { name: "delete it" })).toBeNull();
  await userEvent.click(screen.getByRole("button", { name: "Bring it back" }));
  await waitFor(() => expect(onBack).toHaveBeenCalled());
});

it("says why it could not be brought back", async () => {
  const onBack = vi.fn();
  await showOnPlan(<Unreadable id={3} why="Plan 3 is deleted." onBack={onBack} />, {
    "GET /api/plans/deleted": () => ({ body: [deleted] }),
    "POST /api/plans/3/restore": () => ({ status: 507, body: refusal("The disk is full.") }),
  });
  await userEvent.click(await screen.findByRole("button", { name: "Bring it back" }));
  expect(await screen.findByText(/The disk is full/)).toBeTruthy();
  expect(onBack).not.toHaveBeenCalled();
});

it("a plan that can’t be read is saved as it is, or deleted", async () => {
  await showOnPlan(<Unreadable id={4} why="Plan 4 can’t be read." />, {
    "GET /api/plans/deleted": () => ({ body: [deleted] }),
  });
  const link = await screen.findByRole("link", { name: /save its rows/ });
  expect(link.getAttribute("href")).toBe("/api/plans/4/raw.json");
  expect(screen.getByRole("button", { name: "delete it" })).toBeTruthy();
});
