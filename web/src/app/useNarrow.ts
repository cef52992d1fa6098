import { useSyncExternalStore } from "react";
import { narrow } from "../look/tokens";

const asked = `(max-width: ${narrow.width}px), (max-height: ${narrow.height}px)`;

/** Whether the window has room for one line of trail and purse only, as enlarged to 200 %. */
export function useNarrow(): boolean {
  return useSyncExternalStore(
    (tell) => {
      const query = window.matchMedia?.(asked);
      query?.addEventListener("change", tell);
      return () => query?.removeEventListener("change", tell);
    },
    () => window.matchMedia?.(asked).matches ?? false,
  );
}
