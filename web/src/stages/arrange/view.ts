import type { Schemas } from "../../data/client";

/** What Arrange shows. */
export type ArrangeView = Schemas["ArrangeView"];
