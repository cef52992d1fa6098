import { useSyncExternalStore } from "react";

export type Progress = { what: string; done: number; of: number };

/** How far long work is, by the name this window gave it. */
const held = new Map<string, Progress>();
const listeners = new Set<() => void>();
let count = 0;

const changed = () => listeners.forEach((listener) => listener());

export const newJob = (): string => `${Date.now().toString(36)}-${++count}`;

export function tellJob(job: string, progress: Progress): void {
  held.set(job, progress);
  changed();
}

export function endJob(job: string): void {
  held.delete(job);
  changed();
}

export function useProgress(job: string): Progress | undefined {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => held.get(job),
  );
}

/** The header that names work for the server. */
export const jobHeader = (job: string) => ({ headers: { "X-Milkwort-Job": job } });
