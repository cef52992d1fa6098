import type { Schemas } from "../../../data/client";

export type YearView = Schemas["YearView"];
export type YearRanges = Schemas["YearRanges"];
