import { useEffect, useRef } from "react";
import { useKeys } from "./keys";

const chordSeconds = 2;

/** Two keys one after the other: the first, then one that is told to `onSecond`; whether it was one. */
export function useChord(first: string, onSecond: (key: string) => boolean): void {
  const since = useRef(0);
  const latest = useRef(onSecond);
  useEffect(() => {
    latest.current = onSecond;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (Date.now() - since.current > chordSeconds * 1000) return;
      since.current = 0;
      if (event.ctrlKey || event.metaKey || !latest.current(event.key)) return;
      event.preventDefault();
      event.stopImmediatePropagation();
    };
    window.addEventListener("keydown", listen, true);
    return () => window.removeEventListener("keydown", listen, true);
  }, []);
  useKeys({ [first]: () => (since.current = Date.now()) });
}
