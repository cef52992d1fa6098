import { screen } from "@testing-library/react";
import { showOnPlan } from "../testing-plan";
import { Caught } from "./Caught";

function Fails(): never {
  throw new Error("The drawing is torn.");
}

it("what can’t be drawn is said in its place, and all around it stays", async () => {
  const complain = vi.spyOn(console, "error").mockImplementation(() => undefined);
  await showOnPlan(
    <>
      <p>what stands beside</p>
      <Caught what="This stage">
        <Fails />
      </Caught>
    </>,
  );
  expect(screen.getByRole("alert").textContent).toBe(
    "This stage could not be shown: The drawing is torn. Everything that was entered is kept. open the page again",
  );
  expect(screen.getByText("what stands beside")).toBeTruthy();
  complain.mockRestore();
});
