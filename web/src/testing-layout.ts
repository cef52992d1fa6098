/** jsdom lays nothing out: give every box a size, so that rows of a grid are in view. */
export function giveSizes(): void {
  for (const [name, size] of [
    ["offsetHeight", 600],
    ["offsetWidth", 800],
    ["clientHeight", 600],
  ] as const)
    Object.defineProperty(HTMLElement.prototype, name, { configurable: true, value: size });
  Element.prototype.scrollTo = () => undefined;
}
