import type { Sort } from "../../parts/column";
import type { ArrangeView, Groups } from "./view";

/** Campaigns by what they spend or by name, each with its groups in the order asked for. */
export function outlined({ groups, campaigns }: ArrangeView, sort: Sort) {
  const within = sorted(groups, sort);
  const order = [...campaigns].sort((a, b) => b.spend - a.spend || a.name.localeCompare(b.name));
  const rows: number[] = [];
  const heads = order.map((one) => {
    const before = rows.length;
    rows.push(...within.filter((row) => groups.campaign_id[row] === one.id));
    return { one, before };
  });
  return { rows, heads };
}

function sorted(groups: Groups, { by, down }: Sort): number[] {
  const value = (row: number): string | number => {
    const column =
      groups[by as "name" | "campaign" | "keywords" | "searches" | "spend" | "customers"];
    return column[row] ?? -1;
  };
  const compare = (a: number, b: number) => {
    const [one, other] = [value(a), value(b)];
    const order = typeof one === "string" ? one.localeCompare(String(other)) : one - Number(other);
    return (down ? -order : order) || a - b;
  };
  return groups.id.map((_, row) => row).sort(compare);
}
