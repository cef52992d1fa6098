/** The inks of the notebook. Colour never speaks alone: see Petal and CallMark. */
export const ink = {
  paper: "#FBFAF5",
  paper2: "#F2F0E6",
  rule: "#D9D5C5",
  ink: "#20242E",
  ink2: "#565B68",
  ink3: "#6B707B",
  petal: "#4A46B8",
  petalDeep: "#332F8F",
  petalMid: "#8481D4",
  petalWash: "#E7E6F7",
  rose: "#A63D6D",
  straw: "#8A6412",
  moss: "#3D6B57",
  stone: "#B4AE9C",
} as const;

/** Fills of the purse's segments and the ladder's blocks, by group; light and dark alternate. */
export const groupInks = [
  "#332F8F",
  "#8481D4",
  "#4A46B8",
  "#20242E",
  "#6B67CC",
  "#565B68",
  "#A5A2E2",
  "#3D6B57",
] as const;

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
