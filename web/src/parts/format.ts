/** Figures as they are shown: thousands separated, units left to headings. */

const locale = typeof navigator === "undefined" ? "en-GB" : navigator.language;

/** A formatter costs more to make than all the figures of a screen cost to write. */
const formats = new Map<number, Intl.NumberFormat>();

function formatOf(digits: number): Intl.NumberFormat {
  const held = formats.get(digits);
  if (held) return held;
  const made = new Intl.NumberFormat(locale, {
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  formats.set(digits, made);
  return made;
}

export function number(value: number | null | undefined, digits = 0): string {
  if (value == null || !Number.isFinite(value)) return "–";
  return formatOf(digits).format(value).replace("-", "−");
}

/** Money of any size: pence under a hundred thousand, whole units above. */
export function money(value: number | null | undefined): string {
  return number(value, value != null && Math.abs(value) >= 100_000 ? 0 : 2);
}

/** A small expected count, with as many digits as it needs to be told from nothing. */
export function count(value: number | null | undefined): string {
  if (value == null || !Number.isFinite(value)) return "–";
  const size = Math.abs(value);
  if (size === 0) return "0";
  if (size < 0.01) return number(value, 4);
  if (size < 1) return number(value, 2);
  return number(value, size < 100 ? 1 : 0);
}

export function percent(share: number | null | undefined, digits = 1): string {
  if (share == null || !Number.isFinite(share)) return "–";
  return `${number(share * 100, Math.abs(share * 100 - Math.round(share * 100)) < 1e-9 ? 0 : digits)} %`;
}

/** A change, with its sign; empty where it is too small to see. */
export function delta(value: number, digits: number): string {
  const shown = number(Math.abs(value), digits);
  if (Number(shown.replace(/[^\d]/g, "")) === 0) return "";
  return (value > 0 ? "+" : "−") + shown;
}

/** Read what a person typed as a number: 1,200.50 · 1.200,50 · 55 % · £4. */
export function parsed(text: string): number | null {
  const bare = text.replace(/[^\d.,−-]/g, "").replace("−", "-");
  if (!/\d/.test(bare)) return null;
  const mark = Math.max(bare.lastIndexOf("."), bare.lastIndexOf(","));
  const behind = mark < 0 ? 0 : bare.length - mark - 1;
  const marks = bare.replace(/[^.,]/g, "").length;
  const isDecimal = mark >= 0 && !(behind === 3 && marks === 1 && bare[mark] === ",");
  const digits = isDecimal
    ? `${bare.slice(0, mark).replace(/[.,]/g, "")}.${bare.slice(mark + 1)}`
    : bare.replace(/[.,]/g, "");
  const value = Number(digits);
  return Number.isFinite(value) ? value : null;
}

export type Per = "day" | "week" | "month";

/** Money as typed, with what it is said for: "20 a day", "140 / week", or a month's. */
export function parsedPer(text: string): { value: number; per: Per } | null {
  const value = parsed(text);
  if (value === null) return null;
  return { value, per: (["day", "week"] as const).find((per) => text.includes(per)) ?? "month" };
}

export const currencyWord = (code: string): string =>
  ({ GBP: "pound", EUR: "euro", USD: "dollar" })[code] ?? "unit";

export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${number(n)} ${n === 1 ? one : many}`;
