import { useCallback, useEffect, useRef } from "react";

/** A handler that stays the same function while what it does follows the latest drawing. */
export function useSteady<A extends unknown[]>(run: (...args: A) => void): (...args: A) => void {
  const latest = useRef(run);
  useEffect(() => {
    latest.current = run;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}
