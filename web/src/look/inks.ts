/** The two sets of inks: paper by day, and the same page under a lamp. */
export const paper = {
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
  step1: "#E7E6F7",
  step2: "#D6D4F0",
  step3: "#C7C4EA",
  step4: "#8E8BD8",
  group1: "#332F8F",
  group2: "#8481D4",
  group3: "#4A46B8",
  group4: "#20242E",
  group5: "#6B67CC",
  group6: "#565B68",
  group7: "#A5A2E2",
  group8: "#3D6B57",
} as const;

export type InkName = keyof typeof paper;
export type Inks = Readonly<Record<InkName, string>>;

export const lamp: Inks = {
  paper: "#1C1B18",
  paper2: "#262420",
  rule: "#454138",
  ink: "#ECE7D8",
  ink2: "#BBB5A5",
  ink3: "#A29C8D",
  petal: "#A8A4F4",
  petalDeep: "#C6C3FB",
  petalMid: "#7C78D2",
  petalWash: "#302E52",
  rose: "#E58FB4",
  straw: "#DDB765",
  moss: "#8CC5A8",
  stone: "#6F6A5C",
  step1: "#2B2A47",
  step2: "#35335A",
  step3: "#403E6C",
  step4: "#5A57A0",
  group1: "#C6C3FB",
  group2: "#6F6BC9",
  group3: "#A8A4F4",
  group4: "#ECE7D8",
  group5: "#8A86E0",
  group6: "#BBB5A5",
  group7: "#57539F",
  group8: "#8CC5A8",
};

/** The name of an ink as style sheets know it. */
export const variable = (name: InkName): string => `--ink-${name}`;

/** A set of inks as a style sheet says it. */
export const declared = (inks: Inks): string =>
  (Object.keys(inks) as InkName[]).map((name) => `${variable(name)}: ${inks[name]};`).join(" ");
