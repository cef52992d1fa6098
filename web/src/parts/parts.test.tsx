import { fireEvent, render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { SayingProvider, useSaid } from "../data/saying";
import { Blank } from "./Blank";
import { CallMark } from "./CallMark";
import { Petal } from "./Petal";
import { Whisker } from "./Whisker";
import { sheetOf } from "../testing-sheet";
import { priceScale, priceTicks } from "./scale";
import { place, span, withRange, withToggled } from "./selection";
import { visibleRange } from "./visibleRange";

function Said() {
  return <p role="status">{useSaid()?.text}</p>;
}

const renderBlank = (onCommit: (text: string) => Promise<boolean | string>, assumed = false) =>
  render(
    <SayingProvider>
      <Blank label="Price" value="340" onCommit={onCommit} assumed={assumed} />
      <Said />
    </SayingProvider>,
  );

describe("a blank in a sentence", () => {
  it("takes what was typed on Enter", async () => {
    const taken = vi.fn().mockResolvedValue(true);
    renderBlank(taken);
    await userEvent.clear(screen.getByLabelText("Price"));
    await userEvent.type(screen.getByLabelText("Price"), "350{Enter}");
    await waitFor(() => expect(taken).toHaveBeenCalledWith("350"));
  });

  it("puts the old back on Escape", async () => {
    const taken = vi.fn();
    renderBlank(taken);
    await userEvent.type(screen.getByLabelText("Price"), "9{Escape}");
    expect(screen.getByLabelText("Price")).toHaveProperty("value", "340");
    fireEvent.blur(screen.getByLabelText("Price"));
    expect(taken).not.toHaveBeenCalled();
  });

  it("keeps what was refused, marked, to be mended", async () => {
    renderBlank(() => Promise.resolve(false), true);
    const field = screen.getByLabelText("Price");
    await userEvent.clear(field);
    await userEvent.type(field, "dear{Enter}");
    await waitFor(() => expect(field.getAttribute("aria-invalid")).toBe("true"));
    expect(field).toHaveProperty("value", "dear");
    expect(field.getAttribute("title")).toContain("assumed");
    expect(screen.getByRole("status").textContent).toBe("");
  });

  it("says what it expected where it could not read what was typed", async () => {
    renderBlank((text) => Promise.resolve(text === "9" || "a number"));
    const field = screen.getByLabelText("Price");
    await userEvent.clear(field);
    await userEvent.type(field, " 10 to 20 {Enter}");
    await waitFor(() =>
      expect(screen.getByRole("status").textContent).toBe(
        "Price: expected a number, got “10 to 20”.",
      ),
    );
    expect(field).toHaveProperty("value", " 10 to 20 ");
    expect(field.getAttribute("aria-invalid")).toBe("true");
    await userEvent.clear(field);
    await userEvent.type(field, "9{Enter}");
    await waitFor(() => expect(field.getAttribute("aria-invalid")).toBeNull());
  });
});

it("marks speak: standing, call and price have names", () => {
  const scale = priceScale(sheetOf([]).figures, 100);
  render(
    <>
      <Petal standing="stretch" />
      <CallMark call="block" />
      <CallMark call="none" />
      <Whisker
        scale={scale}
        ticks={priceTicks(scale)}
        width={100}
        low={1}
        median={1.5}
        high={2}
        ceiling={4}
        bid={1.2}
      />
      <Whisker
        scale={scale}
        ticks={[]}
        width={100}
        low={null}
        median={null}
        high={null}
        ceiling={null}
      />
    </>,
  );
  for (const name of [
    "stretch",
    "block",
    "not yet called",
    "no price",
    "1.00 to 2.00, ceiling 4.00, bid 1.20",
  ])
    expect(screen.getByRole("img", { name })).toBeTruthy();
});

it("selections grow by ranges and toggle by one", () => {
  const idOf = (row: number) => row * 10;
  expect(place([3, 1, 2], idOf, 10)).toBe(1);
  expect(place([3, 1, 2], idOf, null)).toBe(-1);
  expect(span([3, 1, 2], idOf, 2, 1)).toEqual([10, 20]);
  expect([...withRange(new Set([5]), [10, 20])]).toEqual([5, 10, 20]);
  expect([...withToggled(new Set([5]), 5)]).toEqual([]);
});

it("the active row stays mounted wherever it is", () => {
  const range = { startIndex: 10, endIndex: 12, overscan: 0, count: 100 };
  expect(visibleRange(range, 50)).toEqual([10, 11, 12, 50]);
  expect(visibleRange(range, 3)).toEqual([3, 10, 11, 12]);
  expect(visibleRange(range, null)).toEqual([10, 11, 12]);
});
