import type { Summary } from "../data/client";
import { money, number, plural } from "../parts/format";

export type Stage = {
  path: string;
  name: string;
  key: string;
  /** The stage's live result. */
  result: (summary: Summary) => string;
};

export const stages: Stage[] = [
  {
    path: "brief",
    name: "Brief",
    key: "b",
    result: ({ trail }) => `ceiling ${money(trail.ceiling)}`,
  },
  {
    path: "gather",
    name: "Gather",
    key: "g",
    result: ({ trail }) => plural(trail.keywords, "keyword"),
  },
  {
    path: "sift",
    name: "Sift",
    key: "s",
    result: ({ trail }) => `${number(trail.kept)} kept · ${number(trail.to_call)} to call`,
  },
  {
    path: "arrange",
    name: "Arrange",
    key: "a",
    result: ({ trail }) =>
      trail.without_ad > 0
        ? `${number(trail.without_ad)} without an ad`
        : `${plural(trail.campaigns, "campaign")}, ${plural(trail.groups, "group")}`,
  },
  {
    path: "fit",
    name: "Fit",
    key: "f",
    result: ({ trail }) => `${number(trail.spend)} of ${number(trail.purse)}`,
  },
  {
    path: "hand-over",
    name: "Hand over",
    key: "h",
    result: ({ trail }) => (trail.hand_overs ? `${number(trail.hand_overs)} sent` : "nothing sent"),
  },
  { path: "learn", name: "Learn", key: "l", result: () => "results" },
];
