import type { Schemas } from "../../data/client";

/** Rows that were read and wait to be taken in. */
export type Tray = Schemas["TrayView"];
/** A source has filled the tray, and can fill it with more. */
export type Brought = (tray: Tray, more?: () => Promise<Tray>) => void;
/** Rows by what would become of them. */
export type Part = "new" | "near" | "caught" | "changed" | "there" | "cleaned" | "refused";
/** What becomes of rows that are alike a keyword. */
export type Near = NonNullable<Schemas["TakeChoice"]["near"]>;
