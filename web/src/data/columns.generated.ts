/** Made by `make types` from the program's tables of what is said of keywords. */

import type { Figures, Texts } from "./client";

export type ShownColumn = {
  id: string;
  from: { texts: keyof Texts } | { figures: keyof Figures };
  heading: string;
  written: "money" | "count" | "number" | "percent" | "text";
  digits: number;
  /** Whether the list can show it as a plain column. */
  listed: boolean;
  /** What a filter by least and most calls it, a filter by values, and a comparison. */
  ranged: string;
  picked: string;
  compared: string;
};

export const shownColumns: readonly ShownColumn[] = [
  {
    "id": "keyword",
    "from": {
      "texts": "text"
    },
    "heading": "Keyword",
    "written": "text",
    "digits": 0,
    "listed": false,
    "ranged": "",
    "picked": "",
    "compared": ""
  },
  {
    "id": "match",
    "from": {
      "texts": "match"
    },
    "heading": "Match",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "match",
    "compared": ""
  },
  {
    "id": "intent",
    "from": {
      "texts": "intent"
    },
    "heading": "Intent",
    "written": "text",
    "digits": 0,
    "listed": false,
    "ranged": "",
    "picked": "intent",
    "compared": "intent"
  },
  {
    "id": "call",
    "from": {
      "texts": "call"
    },
    "heading": "Call",
    "written": "text",
    "digits": 0,
    "listed": false,
    "ranged": "",
    "picked": "call",
    "compared": ""
  },
  {
    "id": "reason",
    "from": {
      "texts": "reason"
    },
    "heading": "Reason",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "reason",
    "compared": ""
  },
  {
    "id": "group",
    "from": {
      "texts": "group"
    },
    "heading": "Group",
    "written": "text",
    "digits": 0,
    "listed": false,
    "ranged": "",
    "picked": "group",
    "compared": ""
  },
  {
    "id": "offer",
    "from": {
      "texts": "offer"
    },
    "heading": "Offer",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "offer",
    "compared": ""
  },
  {
    "id": "own_note",
    "from": {
      "texts": "note"
    },
    "heading": "Own note",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": ""
  },
  {
    "id": "by",
    "from": {
      "texts": "by"
    },
    "heading": "Called by",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "called by",
    "compared": ""
  },
  {
    "id": "at",
    "from": {
      "texts": "at"
    },
    "heading": "Called",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": ""
  },
  {
    "id": "rank",
    "from": {
      "texts": "unpaid_rank"
    },
    "heading": "Unpaid rank",
    "written": "number",
    "digits": 0,
    "listed": true,
    "ranged": "unpaid rank",
    "picked": "",
    "compared": ""
  },
  {
    "id": "paid",
    "from": {
      "texts": "paid_rank"
    },
    "heading": "Paid rank",
    "written": "number",
    "digits": 0,
    "listed": true,
    "ranged": "paid rank",
    "picked": "",
    "compared": ""
  },
  {
    "id": "popularity",
    "from": {
      "texts": "popularity"
    },
    "heading": "Popularity",
    "written": "number",
    "digits": 0,
    "listed": true,
    "ranged": "popularity",
    "picked": "",
    "compared": ""
  },
  {
    "id": "gap",
    "from": {
      "texts": "rank_gap"
    },
    "heading": "Paid less unpaid rank",
    "written": "number",
    "digits": 0,
    "listed": true,
    "ranged": "paid less unpaid rank",
    "picked": "",
    "compared": ""
  },
  {
    "id": "competition",
    "from": {
      "texts": "competition"
    },
    "heading": "Competition, %",
    "written": "percent",
    "digits": 0,
    "listed": true,
    "ranged": "competition, %",
    "picked": "",
    "compared": ""
  },
  {
    "id": "origin",
    "from": {
      "texts": "origin"
    },
    "heading": "Source",
    "written": "text",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "source",
    "compared": ""
  },
  {
    "id": "searches",
    "from": {
      "figures": "searches"
    },
    "heading": "Searches a month",
    "written": "number",
    "digits": 0,
    "listed": false,
    "ranged": "searches",
    "picked": "",
    "compared": "searches a month"
  },
  {
    "id": "low",
    "from": {
      "figures": "cpc_low"
    },
    "heading": "Low price, {currency}",
    "written": "money",
    "digits": 0,
    "listed": true,
    "ranged": "low price",
    "picked": "",
    "compared": ""
  },
  {
    "id": "middle",
    "from": {
      "figures": "cpc_median"
    },
    "heading": "Middle price, {currency}",
    "written": "money",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": "median price"
  },
  {
    "id": "high",
    "from": {
      "figures": "cpc_high"
    },
    "heading": "High price, {currency}",
    "written": "money",
    "digits": 0,
    "listed": true,
    "ranged": "high price",
    "picked": "",
    "compared": ""
  },
  {
    "id": "rate",
    "from": {
      "figures": "rate"
    },
    "heading": "Buy, of 100 clicks",
    "written": "percent",
    "digits": 1,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": "buy, of 100 clicks"
  },
  {
    "id": "ceiling",
    "from": {
      "figures": "ceiling"
    },
    "heading": "Ceiling, {currency}",
    "written": "money",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": "a click is worth, at most"
  },
  {
    "id": "reach",
    "from": {
      "figures": "reach"
    },
    "heading": "Reach at ceiling, %",
    "written": "percent",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": "reach at the ceiling"
  },
  {
    "id": "spill",
    "from": {
      "figures": "spill"
    },
    "heading": "Spill, searches a month",
    "written": "number",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": ""
  },
  {
    "id": "first_sale",
    "from": {
      "figures": "first_sale"
    },
    "heading": "Clicks to a likely sale",
    "written": "number",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": "clicks to a likely sale"
  },
  {
    "id": "standing",
    "from": {
      "figures": "standing"
    },
    "heading": "Standing",
    "written": "text",
    "digits": 0,
    "listed": false,
    "ranged": "",
    "picked": "standing",
    "compared": ""
  },
  {
    "id": "clicks",
    "from": {
      "figures": "clicks"
    },
    "heading": "Clicks a month",
    "written": "count",
    "digits": 0,
    "listed": true,
    "ranged": "",
    "picked": "",
    "compared": "clicks a month"
  },
  {
    "id": "spend",
    "from": {
      "figures": "spend"
    },
    "heading": "Spend, {currency}",
    "written": "money",
    "digits": 0,
    "listed": false,
    "ranged": "",
    "picked": "",
    "compared": "spend a month"
  },
  {
    "id": "customers",
    "from": {
      "figures": "customers"
    },
    "heading": "Customers",
    "written": "count",
    "digits": 0,
    "listed": false,
    "ranged": "customers",
    "picked": "",
    "compared": "customers a month"
  }
];
