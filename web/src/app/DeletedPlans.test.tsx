import { screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { refusal, showOnPlan } from "../testing-plan";
import { DeletedPlans } from "./DeletedPlans";

const plan = (id: number, name: string, label = "") => ({
  ...{ id, name, label, client: "Oakley", deleted_at: "2027-03-02T01:00:00+00:00" },
});
const shown = (plans: unknown[], answers = {}, onBack = vi.fn()) =>
  showOnPlan(<DeletedPlans onBack={onBack} />, {
    "GET /api/plans/deleted": () => ({ body: plans }),
    ...answers,
  });

it("says whose they are and when they were deleted, by the planner’s own day", async () => {
  await shown([plan(7, "Sash", "May"), plan(3, "Cords")]);
  const lines = (await screen.findAllByRole("listitem")).map((line) => line.textContent);
  expect(lines).toEqual([
    "Sash · May of Oakley, on 1 March 2027bring back",
    "Cords of Oakley, on 1 March 2027bring back",
  ]);
});

it("brings one back, and asks anew which are left", async () => {
  const left = [plan(7, "Sash"), plan(3, "Cords")];
  const onBack = vi.fn();
  await shown(
    left,
    {
      "GET /api/plans/deleted": () => ({ body: left }),
      "POST /api/plans/3/restore": () => {
        left.pop();
        return { body: {} };
      },
    },
    onBack,
  );
  await userEvent.click(await screen.findByRole("button", { name: "Bring Cords back" }));
  await waitFor(() => expect(screen.queryByText("Cords")).toBeNull());
  expect(onBack).toHaveBeenCalledWith(plan(3, "Cords"));
});

it("says why one can’t be brought back, and it stays", async () => {
  await shown([plan(3, "Cords")], {
    "POST /api/plans/3/restore": () => ({ status: 422, body: refusal("it was not deleted") }),
  });
  await userEvent.click(await screen.findByRole("button", { name: "Bring Cords back" }));
  await waitFor(() => expect(screen.getByTestId("said").textContent).toBe("it was not deleted"));
  expect(screen.getByText("Cords")).toBeTruthy();
});

it("says nothing where none was deleted", async () => {
  await shown([]);
  expect(screen.queryByRole("region", { name: "Deleted plans" })).toBeNull();
});
