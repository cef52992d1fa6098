const short: Record<string, string> = {
  no_volume: "no volume",
  showings_say_nothing: "showings say nothing",
  no_searches: "nobody searches it",
  no_price: "no price",
  price_assumed: "price assumed",
  single_price: "one price",
  rate_zero: "no rate would",
  cannot_run: "can't run",
  not_chosen: "brings more elsewhere",
  stopped: "stopped by a negative",
  served_elsewhere: "searches served by a closer match",
  spills: "spills",
  thin: "thin",
  half_day: "over half a day's money",
  above_ceiling: "above its ceiling",
};

/** A row's notes in a few words. */
export function noteWords(codes: string[] | undefined, all = false): string {
  const words = (codes ?? []).map((code) => short[code] ?? code);
  return all ? words.join(", ") : words.slice(0, 2).join(", ");
}
