import { fireEvent, render, screen } from "@testing-library/react";
import { CallBar } from "./CallBar";
import { Line } from "./Line";
import { noteWords } from "./notes";

const idle = { onMove: () => undefined, onFree: () => undefined };

// jsdom knows no pointers to be captured
beforeAll(() => {
  Element.prototype.setPointerCapture = () => undefined;
});

it("in order of headroom it is drawn, and says how to move it", () => {
  render(<Line {...idle} byPrice={false} limit={4.71} own={false} beyond={64} />);
  expect(screen.getByText(/64 keywords beyond/)).toBeTruthy();
  expect(screen.queryByRole("slider")).toBeNull();
});

it("in order of price it is dragged by whole rows", () => {
  const moved = vi.fn();
  render(<Line {...idle} byPrice limit={4.71} own={false} beyond={64} onMove={moved} />);
  const handle = screen.getByRole("slider");
  fireEvent.pointerDown(handle, { clientY: 300 });
  fireEvent.pointerMove(handle, { clientY: 208 });
  expect(handle.textContent).toBe("3 keywords fewer");
  fireEvent.pointerUp(handle);
  expect(moved).toHaveBeenCalledWith(-3);
});

it("a drag of less than half a row moves nothing", () => {
  const moved = vi.fn();
  render(<Line {...idle} byPrice limit={4.71} own={false} beyond={64} onMove={moved} />);
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
])("%s moves it by %d", (key, by) => {
  const moved = vi.fn();
  render(<Line {...idle} byPrice limit={4.71} own beyond={64} onMove={moved} />);
  fireEvent.keyDown(screen.getByRole("slider"), { key });
  expect(moved).toHaveBeenCalledWith(by);
});

it("one's own highest price can be let go", () => {
  const freed = vi.fn();
  render(<Line {...idle} byPrice limit={2} own beyond={64} onFree={freed} />);
  expect(screen.getByText(/your highest price, 2.00 a click/)).toBeTruthy();
  fireEvent.click(screen.getByText("no highest price"));
  expect(freed).toHaveBeenCalled();
});

it("calls are pressed only where something is selected, and say how many", () => {
  const called = vi.fn();
  const { rerender } = render(<CallBar count={0} onCall={called} />);
  fireEvent.click(screen.getByRole("button", { name: "keep 1" }));
  expect(called).not.toHaveBeenCalled();
  rerender(<CallBar count={3} onCall={called} />);
  fireEvent.click(screen.getByRole("button", { name: "block 4" }));
  expect(called).toHaveBeenCalledWith("block");
  expect(screen.getByText("3 selected")).toBeTruthy();
});

it("notes are a few words, all of them when asked", () => {
  expect(noteWords(["thin", "price_assumed", "half_day"])).toBe("thin, price assumed");
  expect(noteWords(["thin", "half_day", "x"], true)).toBe("thin, over half a day's money, x");
  expect(noteWords(undefined)).toBe("");
});
