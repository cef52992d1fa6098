import type { Schemas } from "../../data/client";

/** What Fit shows. */
export type FitView = Schemas["FitView"];
