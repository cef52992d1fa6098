import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

// jsdom has no CSS.escape, which menus use to find their items
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;

// jsdom lays nothing out, so nothing is ever measured anew
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
};

// markup that no browser would keep as it is written is a fault, not a remark
const complain = console.error;
console.error = (...said: unknown[]) => {
  complain(...said);
  if (/cannot (be a descendant|contain a nested)/.test(String(said[0])))
    throw new Error(String(said[0]));
};

configure({ asyncUtilTimeout: 6000 });
afterEach(() => {
  if (typeof window === "undefined") return; // a test of figures alone asks for no page
  cleanup();
  // tests share a window: what one chose to be remembered is not the next one's
  localStorage.clear();
  sessionStorage.clear();
  window.history.replaceState(null, "", "/");
});
