import { cleanup } from "@testing-library/react";
import { afterEach } from "vitest";

// jsdom has no CSS.escape, which menus use to find their items
globalThis.CSS ??= { escape: (text: string) => text } as typeof CSS;

afterEach(cleanup);
