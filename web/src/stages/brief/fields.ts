import type { Schemas } from "../../data/client";
import type { Option } from "../../parts/Choice";
import { number, parsed } from "../../parts/format";

export type Values = Schemas["BriefValues"];
type Rule = Values["ceiling_rule"];

export const goals: Option<Values["goal"]>[] = [
  { id: "customers", name: "customers" },
  { id: "profit", name: "profit" },
  { id: "clicks", name: "clicks" },
  { id: "revenue", name: "revenue" },
];

export const rules: (Option<Rule> & { share: boolean })[] = [
  {
    id: "break_even",
    name: "break even",
    about: "All a customer's margin may go to ads.",
    share: false,
  },
  {
    id: "profit_share",
    name: "keep a share of the margin",
    about: "A share of what a customer brings stays as profit.",
    share: true,
  },
  {
    id: "cost_per_customer",
    name: "pay a fixed cost per customer",
    about: "No customer may cost more than this sum.",
    share: false,
  },
  {
    id: "return_on_spend",
    name: "earn a return on ad spend",
    about: "Each unit of money spent must bring this much turnover.",
    share: false,
  },
  {
    id: "cost_of_sale",
    name: "hold to a cost-of-sale share",
    about: "Ads may take this share of turnover.",
    share: true,
  },
];

export const pricings: Option<Values["pricing"]>[] = [
  {
    id: "pay_enough",
    name: "just enough to win it",
    about: "An auction: at most the bid, mostly less.",
  },
  { id: "pay_bid", name: "exactly what was bid", about: "As on some marketplaces." },
];

export const bases: Option<Values["volume_basis"]>[] = [
  { id: "exact", name: "the very text", about: "Exact match." },
  { id: "phrase", name: "the text within longer ones", about: "Phrase match." },
  { id: "broad", name: "anything close to it", about: "Broad match." },
];

const currencies = [
  ...["GBP", "EUR", "USD", "CHF", "SEK", "NOK", "DKK", "PLN", "CZK", "HUF", "RON", "AUD", "NZD"],
  ...["CAD", "JPY", "KRW", "INR", "SGD", "HKD", "MXN", "BRL", "ZAR", "AED", "ILS", "TRY"],
];

/** Currencies to choose from, a plan's own among them whatever it is. */
export const currenciesWith = (own: string): Option<string>[] =>
  [...(currencies.includes(own) ? [] : [own]), ...currencies].map((code) => ({
    id: code,
    name: code,
  }));

export const months: Option<string>[] = Array.from({ length: 12 }, (_, month) => ({
  id: String(month + 1),
  name: new Intl.DateTimeFormat("en", { month: "long" }).format(new Date(2026, month, 1)),
}));

/** A share as its figure in a sentence: 55 or 4.5. */
export function hundredths(share: number | null): string {
  if (share === null) return "";
  const digits = [0, 1, 2].find(
    (d) => Math.abs(share * 100 - Number((share * 100).toFixed(d))) < 1e-6,
  );
  return number(share * 100, digits ?? 2);
}

export function plain(value: number | null): string {
  if (value === null) return "";
  return number(
    value,
    Number.isInteger(value) ? 0 : Math.abs(value * 10 - Math.round(value * 10)) < 1e-9 ? 1 : 2,
  );
}

/** A share of the area: 60 (per cent), or people here / people there. */
export function shareOfArea(text: string): number | null {
  const [here, there, ...rest] = text.split("/").map((part) => parsed(part));
  if (rest.length > 0 || here === null || here === undefined) return null;
  if (there === undefined) return here / 100;
  return there ? here / there : null;
}
