import { useChord } from "./useChord";

/** v, then the number of a stage's view. */
export function useViewKeys(count: number, onView: (at: number) => void): void {
  useChord("v", (key) => {
    const at = Number(key) - 1;
    const isView = at >= 0 && at < count;
    if (isView) onView(at);
    return isView;
  });
}
