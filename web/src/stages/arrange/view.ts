import type { Schemas } from "../../data/client";

/** What Arrange shows. */
export type ArrangeView = Schemas["ArrangeView"];
/** Groups of the plan, a column a figure. */
export type Groups = ArrangeView["groups"];
/** One campaign with its limits. */
export type Campaign = ArrangeView["campaigns"][number];
