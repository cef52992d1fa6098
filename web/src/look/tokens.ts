import { paper, variable, type InkName } from "./inks";

const named = (name: InkName): string => `var(${variable(name)})`;

/**
 * The inks of the notebook, as a style sheet has them: they follow what the page is lit by.
 * What is drawn on a canvas takes them from `lighting`. Colour never speaks alone: see Petal
 * and CallMark.
 */
export const ink = Object.fromEntries(
  (Object.keys(paper) as InkName[]).map((name) => [name, named(name)]),
) as Readonly<Record<InkName, string>>;

/** An ink with so much of it, in hundredths, over what lies under it. */
export const thin = (colour: string, hundredths: number): string =>
  `color-mix(in srgb, ${colour} ${hundredths}%, transparent)`;

/** Fills of the purse's segments and the ladder's blocks, by group; light and dark alternate. */
export const groupInks = (
  ["group1", "group2", "group3", "group4", "group5", "group6", "group7", "group8"] as const
).map(named);

/** Fills of bars that descend, the lightest first. */
export const stepInks = (["step1", "step2", "step3", "step4"] as const).map(named);

export const serif = `"Fraunces Variable", Georgia, serif`;
export const sans = `"IBM Plex Sans", system-ui, sans-serif`;

export const rowHeight = 30;
export const trailHeight = 56;
export const purseHeight = 72;
/** Under this width or height trail and purse fold to a line each. */
export const narrow = { width: 860, height: 540 };
/** Said in styled components: the window is narrow or low. */
export const whenNarrow = `@media (max-width: ${narrow.width}px), (max-height: ${narrow.height}px)`;
/** Said in styled components: no room for two parts side by side. */
export const whenStacked = `@media (max-width: ${narrow.width}px)`;
export const lineHeight = 38;
