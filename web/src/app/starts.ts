import type { Schemas } from "../data/client";

/** Ways to begin a plan: a template's figures are assumed until somebody enters them. */
export const starts: {
  start: NonNullable<Schemas["NewPlan"]["start"]>;
  plan: string;
  name: string;
}[] = [
  { start: "service", plan: "A service", name: "a service, sold by enquiry" },
  { start: "shop", plan: "A web shop", name: "a web shop" },
  { start: "subscription", plan: "A subscription", name: "an app or subscription" },
  { start: "blank", plan: "New plan", name: "a blank page" },
  { start: "sample", plan: "Eastmere Sash & Casement", name: "the sample: a workshop" },
  { start: "second_sample", plan: "Brackish Jar", name: "the sample: a web shop" },
];
