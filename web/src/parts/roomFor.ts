type Figure = number | null | undefined;

const digit = 8;
const mark = 4;
const around = 22;
/** Above each of these a figure may be written with fewer decimals, and so be shorter. */
const shorterFrom = [Infinity, 100_000, 100];

/**
 * A track of the grid in which every figure of a column can be read.
 *
 * `beside` is what else stands in its cells, in pixels.
 */
export function roomFor(
  least: number,
  figures: readonly Figure[],
  write: (value: number) => string,
  beside = 0,
): string {
  const widest = largest(figures).map((value) => widthOf(write(value)));
  return `${Math.ceil(Math.max(least, ...widest.map((width) => width + around + beside)))}px`;
}

/** How much room a text of figures takes, in pixels, as rows of a grid are written. */
export function widthOf(text: string): number {
  return [...text].reduce((width, one) => width + (/[.,'’\s]/.test(one) ? mark : digit), 0);
}

function largest(figures: readonly Figure[]): number[] {
  const found = shorterFrom.map(() => 0);
  for (const figure of figures) {
    if (figure == null) continue;
    const size = Math.abs(figure);
    for (let at = 0; at < found.length; at++)
      if (size < shorterFrom[at]! && size > Math.abs(found[at]!)) found[at] = figure;
  }
  return found;
}
