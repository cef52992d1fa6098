const names: Record<string, string> = {
  keyword: "keyword",
  match: "match type",
  volume: "searches a month",
  volume_low: "searches, from",
  volume_high: "searches, to",
  cpc_low: "low price",
  cpc_high: "high price",
  unpaid_rank: "unpaid rank",
  paid_rank: "paid rank",
  shown_at_bid: "shown at a bid of",
  basis: "volume counted as",
  rate: "conversion rate",
  cost: "money for all clicks",
  clicks: "clicks of the period",
};

/** What a field is called on the screen. */
export const fieldName = (field: string): string =>
  names[field] ?? field.replace(/^m(\d\d)$/, "month $1");
