import { useState } from "react";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";

/** Ask the program for something, saying what is under way and what went wrong. */
export function useReading() {
  const { id } = usePlan();
  const { complain } = useSaying();
  const [busy, setBusy] = useState("");
  const read = async <T>(what: string, request: () => Promise<T>, then: (answer: T) => void) => {
    setBusy(what);
    try {
      then(await request());
    } catch (error) {
      complain(error);
    } finally {
      setBusy("");
    }
  };
  return { busy, read, path: { params: { path: { plan_id: id } } } };
}

/** Words between commas or on lines of their own. */
export function wordsOf(text: string): string[] {
  return text
    .split(/[,\n]/)
    .map((word) => word.trim())
    .filter(Boolean);
}
