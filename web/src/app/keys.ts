import { useEffect, useRef, useSyncExternalStore } from "react";

export type Bindings = Record<string, (event: KeyboardEvent) => void>;

const store = "milkwort.single-keys";
const listeners = new Set<() => void>();

export function singleKeysOn(): boolean {
  return localStorage.getItem(store) !== "off";
}

export function setSingleKeys(on: boolean): void {
  localStorage.setItem(store, on ? "on" : "off");
  for (const listener of listeners) listener();
}

export function useSingleKeys(): boolean {
  return useSyncExternalStore((listener) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  }, singleKeysOn);
}

/** Name a key press the way bindings do: "k", "Ctrl+z", "Ctrl+Shift+z". */
export function keyName(event: KeyboardEvent): string {
  const control = event.ctrlKey || event.metaKey;
  const key = event.key.length === 1 && control ? event.key.toLowerCase() : event.key;
  return (control ? "Ctrl+" : "") + (control && event.shiftKey ? "Shift+" : "") + key;
}

function writing(target: EventTarget | null): boolean {
  const element = target instanceof HTMLElement ? target : null;
  return Boolean(
    element?.closest("input, textarea, select, [contenteditable=true], [role=listbox]"),
  );
}

/** Listen for keys; single ones never fire while a field has focus or a dialog is open. */
export function useKeys(bindings: Bindings): void {
  const latest = useRef(bindings);
  useEffect(() => {
    latest.current = bindings;
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.altKey || document.querySelector("[role=dialog]")) return;
      const name = keyName(event);
      const single = !name.startsWith("Ctrl+");
      if (writing(event.target) || (single && !singleKeysOn())) return;
      const binding = latest.current[name];
      if (!binding) return;
      event.preventDefault();
      binding(event);
    };
    window.addEventListener("keydown", listen);
    return () => window.removeEventListener("keydown", listen);
  }, []);
}
