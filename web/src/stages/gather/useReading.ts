import { useState } from "react";
import { endJob, newJob } from "../../data/progress";
import { usePlan } from "../../data/plan";
import { useSaying } from "../../data/saying";

export type Busy = { what: string; job: string } | null;

/** Ask the program for something, saying what is under way and what went wrong. */
export function useReading() {
  const { id } = usePlan();
  const { complain } = useSaying();
  const [busy, setBusy] = useState<Busy>(null);
  const read = async <T>(
    what: string,
    request: (job: string) => Promise<T>,
    then: (answer: T) => void,
  ) => {
    const job = newJob();
    setBusy({ what, job });
    try {
      then(await request(job));
    } catch (error) {
      complain(error);
    } finally {
      endJob(job);
      setBusy(null);
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
