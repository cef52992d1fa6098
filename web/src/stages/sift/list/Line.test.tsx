import { fireEvent, render, screen } from "@testing-library/react";
import { showOnPlan } from "../../../testing-plan";
import { summaryOf } from "../../../testing-summary";
import { CallBar } from "../CallBar";
import { Line } from "./Line";
import { noteWords } from "./notes";

const idle = { onMove: () => undefined, onFree: () => undefined, moved: () => ({ line: 101 }) };

// jsdom knows no pointers to be captured
beforeAll(() => {
  Element.prototype.setPointerCapture = () => undefined;
});

it("dragged in order of headroom it says which rule would let how many in", async () => {
  const moved = vi.fn();
  const tried = {
    purse: summaryOf(1, { customers: 14.2 }).purse,
    ceiling_rule: "profit_share",
    ceiling_value: 0.25,
    max_cpc: null,
    beyond: 60,
  };
  const asked = await showOnPlan(
    <Line {...idle} byPrice={false} limit={4.71} own={false} beyond={64} onMove={moved} />,
    { "POST /try": () => ({ body: tried }) },
  );
  expect(screen.getByText(/your 30 % profit share ends.*64 keywords beyond/)).toBeTruthy();
  const handle = screen.getByRole("slider", { name: "The line: where headroom ends" });
  fireEvent.pointerDown(handle, { clientY: 300 });
  fireEvent.pointerMove(handle, { clientY: 361 });
  expect(await screen.findByText(/your 25 % profit share .*60 keywords beyond, 14.2/)).toBeTruthy();
  expect(asked[0]!.body).toEqual({ line: 101 });
  fireEvent.pointerUp(handle);
  expect(moved).toHaveBeenCalledWith(2);
});

it("in order of price it is dragged by whole rows", async () => {
  const moved = vi.fn();
  await showOnPlan(<Line {...idle} byPrice limit={4.71} own={false} beyond={64} onMove={moved} />);
  const handle = screen.getByRole("slider");
  fireEvent.pointerDown(handle, { clientY: 300 });
  fireEvent.pointerMove(handle, { clientY: 208 });
  expect(handle.textContent).toBe("3 keywords fewer");
  fireEvent.pointerUp(handle);
  expect(moved).toHaveBeenCalledWith(-3);
});

it("a drag of less than half a row moves nothing", async () => {
  const moved = vi.fn();
  await showOnPlan(<Line {...idle} byPrice limit={4.71} own={false} beyond={64} onMove={moved} />);
  const handle = screen.getByRole("slider");
  fireEvent.pointerDown(handle, { clientY: 300 });
  fireEvent.pointerMove(handle, { clientY: 310 });
  fireEvent.pointerUp(handle);
  expect(moved).not.toHaveBeenCalled();
});

it.each([
  ["ArrowUp", -1],
  ["ArrowDown", 1],
  ["PageUp", -10],
  ["PageDown", 10],
])("%s moves it by %d", async (key, by) => {
  const moved = vi.fn();
  await showOnPlan(<Line {...idle} byPrice limit={4.71} own beyond={64} onMove={moved} />);
  fireEvent.keyDown(screen.getByRole("slider"), { key });
  expect(moved).toHaveBeenCalledWith(by);
});

it("one's own highest price can be let go", async () => {
  const freed = vi.fn();
  await showOnPlan(<Line {...idle} byPrice limit={2} own beyond={64} onFree={freed} />);
  expect(screen.getByText(/your highest price, 2.00 a click/)).toBeTruthy();
  fireEvent.click(screen.getByText("no highest price"));
  expect(freed).toHaveBeenCalled();
});

it("calls are pressed only where something is selected", () => {
  const called = vi.fn();
  const { rerender } = render(<CallBar count={0} onCall={called} />);
  fireEvent.click(screen.getByRole("button", { name: "keep 1" }));
  expect(called).not.toHaveBeenCalled();
  rerender(<CallBar count={3} onCall={called} />);
  fireEvent.click(screen.getByRole("button", { name: "block 4" }));
  expect(called).toHaveBeenCalledWith("block");
});

it("notes are a few words, all of them when asked", () => {
  expect(noteWords(["thin", "price_assumed", "half_day"])).toBe("thin, price assumed");
  expect(noteWords(["thin", "half_day", "x"], true)).toBe("thin, over half a day's money, x");
  expect(noteWords(undefined)).toBe("");
});
