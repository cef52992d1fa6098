// @vitest-environment node
import { lamp, paper, type InkName, type Inks } from "./inks";

const channel = (part: number) =>
  part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;

/** Relative luminance, as WCAG 2 has it. */
function luminance(colour: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16) / 255);
  return 0.2126 * channel(red!) + 0.7152 * channel(green!) + 0.0722 * channel(blue!);
}

function contrast(inks: Inks, one: InkName, other: InkName): number {
  const [low, high] = [luminance(inks[one]), luminance(inks[other])].sort((a, b) => a - b);
  return (high! + 0.05) / (low! + 0.05);
}

const texts: InkName[] = ["ink", "ink2", "petal", "petalDeep", "rose", "straw", "moss"];
const grounds: InkName[] = ["paper", "paper2"];
const marks: InkName[] = ["petal", "petalMid", "rose", "straw", "moss"];

describe.each([
  ["paper", paper],
  ["lamp", lamp],
] as [string, Inks][])("on %s", (_, inks) => {
  it.each(texts.flatMap((text) => grounds.map((ground) => [text, ground] as const)))(
    "%s reads on %s",
    (text, ground) => expect(contrast(inks, text, ground)).toBeGreaterThanOrEqual(4.5),
  );
  it.each(["ink", "ink2", "petalDeep", "petal"] as InkName[])(
    "%s reads where it is chosen",
    (text) => expect(contrast(inks, text, "petalWash")).toBeGreaterThanOrEqual(4.5),
  );
  it("the faintest ink reads on paper, and a button's words on it", () => {
    expect(contrast(inks, "ink3", "paper")).toBeGreaterThanOrEqual(4.5);
    expect(contrast(inks, "paper", "petal")).toBeGreaterThanOrEqual(4.5);
  });
  it.each(marks)("a mark of %s is seen", (mark) =>
    expect(contrast(inks, mark, "paper")).toBeGreaterThanOrEqual(3),
  );
  it("the words in a falling bar read", () => {
    for (const step of ["step1", "step2", "step3", "step4"] as InkName[])
      expect(contrast(inks, "ink", step)).toBeGreaterThanOrEqual(4.5);
  });
});
