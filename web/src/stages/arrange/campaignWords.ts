import { hoursInShort } from "../../parts/Hours";
import { daySaid } from "../../parts/days";
import { money, percent, plural } from "../../parts/format";
import type { Campaign } from "./view";

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
export function termsInWords(campaign: Campaign): string {
  const { showing, shown_share, area_share, spots, first_day, last_day } = campaign;
  const parts = [
    showing &&
      `${hoursInShort(showing)}${shown_share === null ? "" : `: ${percent(shown_share, 0)} of searches`}`,
    (first_day || last_day) && daysInWords(first_day, last_day),
    spots > 0 && plural(spots, "spot"),
    area_share !== null && `${percent(area_share, 0)} of the area`,
  ];
  return parts.filter(Boolean).join(" · ") || "the plan’s hours and area";
}

function daysInWords(first: string, last: string): string {
  const from = first && `from ${daySaid(first)}`;
  return [from, last && `to ${daySaid(last)}`].filter(Boolean).join(" ");
}
