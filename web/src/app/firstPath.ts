import { useSyncExternalStore } from "react";
import type { Summary } from "../data/client";

export type Step = { path: string; says: string; isDone: (summary: Summary) => boolean };

const asked = ["sale_value", "monthly_spend"];

/** The short way to a plan of one's own: a sentence a stage, each gone once it is done. */
export const steps: Step[] = [
  {
    path: "brief",
    says: "Say what a sale is worth, how often a visitor buys, and what you spend a month.",
    isDone: ({ brief }) => !asked.some((field) => brief.not_entered.includes(field)),
  },
  {
    path: "gather",
    says: "Bring keywords in: paste them, load a file, or ask the almanac.",
    isDone: ({ trail }) => trail.keywords > 0,
  },
  {
    path: "sift",
    says: "Keep what a buyer would type: 1 keeps, 3 drops, Ctrl A takes all that is shown.",
    isDone: ({ trail }) => trail.kept > 0,
  },
  {
    path: "arrange",
    says: "Put them into groups: b offers ready structures, each with what it would bring.",
    isDone: ({ trail }) => trail.groups > 0,
  },
  {
    path: "fit",
    says: "The money is spread over your keywords: look at the bids, how sure it is, and hand over.",
    isDone: ({ trail }) => trail.hand_overs > 0,
  },
];

// of this window alone: another folder of plans counts its plans from 1 again
const store = "milkwort.path";
const listeners = new Set<() => void>();
const plans = (): number[] => (sessionStorage.getItem(store) ?? "").split(" ").map(Number);

function keep(ids: readonly number[]): void {
  sessionStorage.setItem(store, ids.filter(Boolean).slice(-20).join(" "));
  listeners.forEach((heard) => heard());
}

/** Show the path in a plan that was begun by hand. */
export const beginPath = (plan: number): void => keep([...plans(), plan]);

/** The planner knows the way. */
export const endPath = (plan: number): void => keep(plans().filter((id) => id !== plan));

/** Whether the path is shown in a plan. */
export const useOnPath = (plan: number): boolean =>
  useSyncExternalStore(
    (heard) => {
      listeners.add(heard);
      return () => listeners.delete(heard);
    },
    () => plans().includes(plan),
  );

/** The first step that is left, by its place; −1 where all are done. */
export const stepLeft = (summary: Summary): number =>
  steps.findIndex((step) => !step.isDone(summary));
