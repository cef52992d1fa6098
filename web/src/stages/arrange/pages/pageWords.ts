import type { Schemas } from "../../../data/client";

type Part = Schemas["SaidWord"]["where"][number];
type Led = Pick<Schemas["GroupPageItem"], "address" | "page_id">;

const parts: Record<Part, string> = { title: "the title", heading: "a heading", text: "the text" };

/** Where a page says a word. */
export function placesInWords(where: readonly Part[], { address, page_id }: Led): string {
  if (address === "") return "no page yet";
  if (page_id === null) return "the page isn’t read";
  if (where.length === 0) return "isn’t said";
  return `in ${where.map((part) => parts[part]).join(", ")}`;
}
