import { useEffect, useRef } from "react";
import { useKeys } from "./keys";

/** Something a person can do, by name, and by key where it has one. */
export type Action = {
  name: string;
  /** As keys are named: "k", "Ctrl+z"; several do the same. */
  keys?: string[];
  run: () => void;
};

const registered = new Set<() => Action[]>();

/** Offer actions while a screen is shown: their keys work, and the command box finds them. */
export function useActions(actions: Action[]): void {
  const latest = useRef(actions);
  useEffect(() => {
    latest.current = actions;
  });
  useEffect(() => {
    const read = () => latest.current;
    registered.add(read);
    return () => void registered.delete(read);
  }, []);
  useKeys(Object.fromEntries(actions.flatMap((a) => (a.keys ?? []).map((key) => [key, a.run]))));
}

/** Everything that can be done where the planner now is; those of the screen come first. */
export function actionsNow(): Action[] {
  return [...registered].reverse().flatMap((read) => read());
}
