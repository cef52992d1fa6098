import { useSyncExternalStore } from "react";
import { lamp, paper, type Inks } from "./inks";

export type Lighting = "system" | "paper" | "lamp";
export const lightings: Lighting[] = ["system", "paper", "lamp"];

/** What each is called. */
export const lightSaid: Record<Lighting, string> = {
  system: "as the system has it",
  paper: "paper",
  lamp: "lamp",
};

const store = "milkwort.ink";
const dark = "(prefers-color-scheme: dark)";
const listeners = new Set<() => void>();

/** What was chosen; as the system has it where nothing was. */
export function chosenLighting(): Lighting {
  const kept = localStorage.getItem(store);
  return lightings.find((one) => one === kept) ?? "system";
}

/** Light the page: remembered, and at once. */
export function setLighting(lighting: Lighting): void {
  if (lighting === "system") localStorage.removeItem(store);
  else localStorage.setItem(store, lighting);
  light();
}

/** The inks in force, for what is drawn by hand: style sheets have them as variables. */
export const inksInForce = (): Inks => (underLamp() ? lamp : paper);

/** What was chosen, drawn anew when it changes or the system does. */
export const useLighting = (): Lighting => useSyncExternalStore(listen, chosenLighting);

/** The inks in force, drawn anew when they change. */
export const useInks = (): Inks => useSyncExternalStore(listen, inksInForce);

/** Light the page as was chosen, and follow the system from now on. */
export function light(): void {
  document.documentElement.dataset.ink = underLamp() ? "lamp" : "paper";
  listeners.forEach((heard) => heard());
}

function underLamp(): boolean {
  const chosen = chosenLighting();
  return chosen === "lamp" || (chosen === "system" && prefersDark()?.matches === true);
}

function listen(heard: () => void): () => void {
  listeners.add(heard);
  return () => listeners.delete(heard);
}

const prefersDark = (): MediaQueryList | undefined =>
  typeof matchMedia === "function" ? matchMedia(dark) : undefined;

prefersDark()?.addEventListener("change", light);
// another window of the program chose anew
if (typeof window !== "undefined") window.addEventListener("storage", light);
