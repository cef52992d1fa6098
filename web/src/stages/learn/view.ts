import type { Schemas } from "../../data/client";

export type LearnView = Schemas["LearnView"];
export type Term = Schemas["LearnTerm"];
export type LearnKeyword = Schemas["LearnKeyword"];
export type OurWord = Schemas["OurWord"];
export type History = Schemas["History"];
export type SoFar = Schemas["SoFar"];
export type Waiting = Schemas["Waiting"];
