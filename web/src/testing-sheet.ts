import type { CallName, SheetBlock } from "./data/client";

type Row = {
  text: string;
  call?: CallName;
  standing?: string;
  headroom?: number;
  line?: number | null;
  spend?: number | null;
  bid?: number | null;
};

/** A small sheet for tests. */
export function sheetOf(rows: Row[]): SheetBlock {
  const column = <T>(of: (row: Row, at: number) => T) => rows.map(of);
  const none = column(() => null);
  return {
    groups: [],
    campaigns: [],
    texts: {
      id: column((_, at) => 100 + at),
      text: column((row) => row.text),
      match: column(() => "exact"),
      intent: column(() => "buy"),
      call: column((row) => row.call ?? "none"),
      reason: column(() => ""),
      group: column(() => ""),
      group_id: none,
      offer: column(() => ""),
      note: column(() => ""),
      kinds: column((row) =>
        row.text
          .split(" ")
          .map(() => "w")
          .join(""),
      ),
      by: column(() => ""),
      at: column(() => ""),
      unpaid_rank: none,
      paid_rank: none,
      popularity: none,
      rank_gap: none,
      strong_unpaid: [false, false, false],
      competition: none,
      origin: column(() => ""),
      volume_low: none,
      volume_high: none,
      months: none,
      locked_bid: none,
    },
    figures: {
      searches: none,
      rate: none,
      cpc_low: none,
      cpc_high: none,
      cpc_median: none,
      cpc_at_line: column((row) => row.line ?? null),
      rate_at_line: none,
      value_at_line: none,
      price_at_line: none,
      spill: none,
      first_sale: none,
      ceiling: none,
      headroom: column((row) => row.headroom ?? null),
      reach: none,
      standing: column((row) => row.standing ?? "in_reach"),
      bid: column((row) => row.bid ?? null),
      bid_reach: none,
      cpc: none,
      clicks: none,
      spend: column((row) => row.spend ?? null),
      customers: none,
      notes: column(() => []),
    },
  };
}
