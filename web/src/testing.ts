import { cleanup, configure } from "@testing-library/react";
import { afterEach } from "vitest";

// jsdom has no CSS.escape, which menus use to find their items
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;

configure({ asyncUtilTimeout: 6000 });
afterEach(() => {
  cleanup();
  // tests share a window: what one chose to be remembered is not the next one's
  localStorage.clear();
  sessionStorage.clear();
  window.history.replaceState(null, "", "/");
});
