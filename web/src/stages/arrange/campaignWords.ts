import { hoursInShort } from "../../parts/Hours";
import { money, percent } from "../../parts/format";
import type { ArrangeView } from "./view";

type Campaign = ArrangeView["campaigns"][number];

/** A campaign's limits of money: at most 80, which binds. */
export function limitsInWords({
  least_spend,
  most_spend,
  scouting_share,
  binds,
}: Campaign): string {
  const least = least_spend > 0 ? money(least_spend) : null;
  const most = most_spend === null ? null : money(most_spend);
  const parts = [
    least && most
      ? `${least} to ${most}`
      : most
        ? `at most ${most}`
        : least
          ? `at least ${least}`
          : "no limit",
    binds && `its ${binds} binds`,
    scouting_share !== null && `${percent(scouting_share, 0)} of the purse set aside`,
  ];
  return parts.filter(Boolean).join(", ");
}

/** Its hours and area where it has its own. */
export function termsInWords({ showing, shown_share, area_share }: Campaign): string {
  const parts = [
    showing &&
      `${hoursInShort(showing)}${shown_share === null ? "" : `: ${percent(shown_share, 0)} of searches`}`,
    area_share !== null && `${percent(area_share, 0)} of the area`,
  ];
  return parts.filter(Boolean).join(" · ") || "the plan’s hours and area";
}
