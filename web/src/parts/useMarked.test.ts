import { act, renderHook } from "@testing-library/react";
import { useMarked } from "./useMarked";

type Given = { keys: string[]; rows?: number[]; begins?: boolean };

function marked(given: Given) {
  const { result, rerender } = renderHook(
    ({ keys, rows = keys.map((_, row) => row), begins }: Given) =>
      useMarked(rows, (row) => keys[row]!, begins),
    { initialProps: given },
  );
  return {
    now: () => result.current,
    rerender,
    at: (row: number) => act(() => result.current.setActive(row)),
  };
}

it("stays with what was marked, wherever a later answer puts it", () => {
  const { now, rerender, at } = marked({ keys: ["sash", "cord", "paint"] });
  at(1);
  act(() => now().setSelected(new Set([0, 2])));
  rerender({ keys: ["glass", "paint", "sash", "cord"] });
  expect(now().active).toBe(3);
  expect([...now().selected].sort()).toEqual([1, 2]);
});

it("what is gone is not selected any more, and nothing that took its place", () => {
  const { now, rerender } = marked({ keys: ["sash", "cord"] });
  act(() => now().setSelected(new Set([0, 1])));
  rerender({ keys: ["glass", "cord"] });
  expect([...now().selected]).toEqual([1]);
});

it("goes on with the row that took the place of one that is gone, at the end with the last", () => {
  const { now, rerender, at } = marked({ keys: ["sash", "cord", "paint"] });
  at(1);
  rerender({ keys: ["sash", "paint"] });
  expect(now().active).toBe(1);
  rerender({ keys: ["sash"] });
  expect(now().active).toBe(0);
  rerender({ keys: [] });
  expect(now().active).toBeNull();
});

it("counts places among the rows that are shown", () => {
  const keys = ["sash", "cord", "paint", "glass"];
  const { now, rerender, at } = marked({ keys, rows: [0, 2, 3] });
  at(2);
  rerender({ keys, rows: [0, 3] });
  expect(now().active).toBe(3);
});

it("of two rows that are the same the one is active that was chosen", () => {
  const { now, at } = marked({ keys: ["sash", "sash", "cord"] });
  at(1);
  expect(now().active).toBe(1);
});

it("begins with none, or with the first where a list always has one", () => {
  expect(marked({ keys: ["sash"] }).now().active).toBeNull();
  const { now, rerender, at } = marked({ keys: ["sash", "cord"], begins: true });
  expect(now().active).toBe(0);
  at(1);
  act(() => now().clear());
  rerender({ keys: ["glass", "cord"], begins: true });
  expect(now().active).toBe(0);
});
