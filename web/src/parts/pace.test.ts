import { act, renderHook } from "@testing-library/react";
import { usePaced } from "./usePaced";
import { useSettled } from "./useSettled";

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const settling = (first?: string) =>
  renderHook(({ value }) => useSettled(value, 80, first), { initialProps: { value: "one" } });

it("a value stands at once, and a new one only after it has stood for a while", () => {
  const { result, rerender } = settling();
  expect(result.current).toBe("one");
  rerender({ value: "two" });
  act(() => void vi.advanceTimersByTime(79));
  expect(result.current).toBe("one");
  act(() => void vi.advanceTimersByTime(1));
  expect(result.current).toBe("two");
});

it("values that follow each other are passed over: only the last is taken", () => {
  const { result, rerender } = settling();
  for (const value of ["two", "three", "four"]) {
    rerender({ value });
    act(() => void vi.advanceTimersByTime(60));
    expect(result.current).toBe("one");
  }
  act(() => void vi.advanceTimersByTime(20));
  expect(result.current).toBe("four");
});

it("another first value holds until the real one has stood", () => {
  const { result } = settling("none yet");
  expect(result.current).toBe("none yet");
  act(() => void vi.advanceTimersByTime(80));
  expect(result.current).toBe("one");
});

it("a value that keeps moving is taken every so often, and always at its end", () => {
  const { result, rerender } = renderHook(({ value }) => usePaced(value, 100), {
    initialProps: { value: 0 },
  });
  const seen: number[] = [];
  for (let value = 1; value <= 10; value++) {
    rerender({ value });
    act(() => void vi.advanceTimersByTime(30));
    seen.push(result.current);
  }
  // taken at 0, 100, 200 and 300 ms, each time the value of that moment
  expect(seen).toEqual([1, 1, 1, 4, 4, 4, 7, 7, 7, 10]);
  rerender({ value: 11 });
  act(() => void vi.advanceTimersByTime(100));
  expect(result.current).toBe(11);
});
