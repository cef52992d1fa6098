import { renderHook } from "@testing-library/react";
import { keyName, setSingleKeys, useKeys } from "./keys";

const press = (key: string, options: KeyboardEventInit = {}, target: EventTarget = window) =>
  target.dispatchEvent(
    new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true, ...options }),
  );

beforeEach(() => setSingleKeys(true));

it("names keys the way bindings do", () => {
  expect(keyName(new KeyboardEvent("keydown", { key: "k" }))).toBe("k");
  expect(keyName(new KeyboardEvent("keydown", { key: "Z", ctrlKey: true, shiftKey: true }))).toBe(
    "Ctrl+Shift+z",
  );
});

it("fires outside of fields, never within", () => {
  const keep = vi.fn();
  renderHook(() => useKeys({ "1": keep }));
  press("1");
  expect(keep).toHaveBeenCalledTimes(1);
  const field = document.body.appendChild(document.createElement("input"));
  press("1", {}, field);
  expect(keep).toHaveBeenCalledTimes(1);
  field.remove();
});

it("rests while a dialog is open", () => {
  const keep = vi.fn();
  renderHook(() => useKeys({ "1": keep }));
  const dialog = document.body.appendChild(document.createElement("div"));
  dialog.setAttribute("role", "dialog");
  press("1");
  dialog.remove();
  expect(keep).not.toHaveBeenCalled();
});

it("single keys can be switched off; Ctrl keys stay", () => {
  const keep = vi.fn();
  const undo = vi.fn();
  renderHook(() => useKeys({ "1": keep, "Ctrl+z": undo }));
  setSingleKeys(false);
  press("1");
  press("z", { ctrlKey: true });
  expect(keep).not.toHaveBeenCalled();
  expect(undo).toHaveBeenCalledTimes(1);
});
