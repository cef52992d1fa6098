import { useRef, useState } from "react";
import { plural } from "./format";

/** Seconds after which somebody is taken to have done something else meanwhile. */
const slowest = 60;
/** Decisions before which a pace says nothing. */
const atLeast = 3;
const remembered = 20;

/** How fast somebody decides, and how long what is left takes at that pace. */
export function usePace() {
  const times = useRef<number[]>([]);
  const [, redraw] = useState(0);
  return {
    tick: () => {
      times.current = [...times.current.slice(-remembered), Date.now()];
      redraw((n) => n + 1);
    },
    minutes: (left: number): string => {
      const gaps = times.current
        .slice(1)
        .map((time, at) => Math.min((time - times.current[at]!) / 1000, slowest))
        .sort((a, b) => a - b);
      if (gaps.length < atLeast) return "";
      const seconds = gaps[Math.floor(gaps.length / 2)]! * left;
      return `, about ${plural(Math.max(1, Math.round(seconds / 60)), "minute")}`;
    },
  };
}
