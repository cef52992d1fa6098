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

/** A figure where there is little room for it: from ten millions on in millions. */
export function short(value: number | null | undefined): string {
  if (value == null || Math.abs(value) < 10_000_000) return number(value);
  return `${number(value / 1_000_000, 1)}M`;
}

const significant = new Intl.NumberFormat(locale, {
  minimumSignificantDigits: 2,
  maximumSignificantDigits: 2,
});

/** What one unit of money brings: as many digits as it takes to read two of them. */
export function brought(value: number): string {
  const size = Math.abs(value);
  if (size > 0 && size < 0.001) return significant.format(value);
  return number(value, size < 0.1 ? 4 : size < 10 ? 2 : 0);
}

/** How many of a hundred a share is. */
export function inHundred(share: number | null | undefined, digits = 1): string {
  if (share == null || !Number.isFinite(share)) return "–";
  const whole = Math.abs(share * 100 - Math.round(share * 100)) < 1e-9;
  return number(share * 100, whole ? 0 : digits);
}

/** A share in per cent; no line ends between the figure and its sign. */
export function percent(share: number | null | undefined, digits = 1): string {
  const figure = inHundred(share, digits);
  return figure === "–" ? figure : `${figure}\u00a0%`;
}

/** A change, with its sign; empty where it is too small to see. */
export function delta(value: number, digits: number): string {
  const shown = number(Math.abs(value), digits);
  if (Number(shown.replace(/[^\d]/g, "")) === 0) return "";
  return (value > 0 ? "+" : "−") + shown;
}

/** What a field of figures expects, where it says so. */
export const A_NUMBER = "a number";

const MOST_QUOTED = 60;

/** What was typed, as a message repeats it: its beginning, where it is long. */
export function quoted(typed: string): string {
  const said = Array.from(typed.trim()); // a sign of two units stays whole
  const begun = said.slice(0, MOST_QUOTED).join("");
  return `“${begun}${said.length > MOST_QUOTED ? "…" : ""}”`;
}

type Mark = "." | ",";

const FIGURE = /^([−+-]?)\s*(\d[\d.,'’\s]*|[.,]\d+)([km]?)$/i;
const WHOLE = /^(\d*|\d{1,3}([\s'’]\d{3})+|\d{1,3}(,\d{2,3})*,\d{3}|\d{1,3}(\.\d{2,3})*\.\d{3})$/;
const TIMES = { "": 1, k: 1e3, m: 1e6 } as Record<string, number>;
const codes = new Set(Intl.supportedValuesOf("currency"));

/** What the figures on the screen have before their decimals. */
const shownMark: Mark = formatOf(1).format(0.5).includes(",") ? "," : ".";

/** Where the decimals begin: at the last mark, unless that parts thousands. */
function decimalsAt(digits: string, mine: Mark): number {
  const at = Math.max(digits.lastIndexOf("."), digits.lastIndexOf(","));
  if (at < 0) return digits.length;
  const mark = digits[at]!;
  const again = digits.indexOf(mark) !== at;
  // 1,200 and 1.200 are read as the screen writes them; 0,125 parts no thousands anywhere
  const thousands = mark !== mine && /^[1-9]\d{0,2}[.,]\d{3}$/.test(digits);
  return again || thousands ? digits.length : at;
}

/** Leave a currency's sign or code, and a per cent sign, away. */
function bareFigure(text: string): string {
  const words = text
    .replace(/\p{Sc}|%/gu, " ")
    .trim()
    .split(/\s+/);
  if (codes.has(words[0]!.toUpperCase())) words.shift();
  if (codes.has(words.at(-1)?.toUpperCase() ?? "")) words.pop();
  return words.join(" ");
}

/**
 * Read what a person typed as a number: 1,200.50 · 1.200,50 · 1 200 · 55 % · £4 · 1.2K.
 * What is more than one number, or says anything beside it, is none.
 */
export function parsed(text: string, mine: Mark = shownMark): number | null {
  const found = FIGURE.exec(bareFigure(text));
  if (!found) return null;
  const digits = found[2]!.trim();
  const at = decimalsAt(digits, mine);
  const whole = digits.slice(0, at);
  const decimals = digits.slice(at + 1);
  if (!WHOLE.test(whole) || !/^\d*$/.test(decimals)) return null;
  const size = Number(`${whole.replace(/\D/g, "") || 0}.${decimals || 0}`);
  return size * TIMES[found[3]!.toLowerCase()]! * (/[−-]/.test(found[1]!) ? -1 : 1);
}

export type Per = "day" | "week" | "month";

/** Money as typed, with what it is said for: "20 a day", "140 / week", or a month's. */
export function parsedPer(text: string): { value: number; per: Per } | null {
  const words = text.replaceAll("/", " ").trim().split(/\s+/);
  const per = (["day", "week", "month"] as const).find(
    (one) => one === words.at(-1)?.toLowerCase(),
  );
  if (per) words.pop();
  if (per && ["a", "per", "each"].includes(words.at(-1) ?? "")) words.pop();
  const value = parsed(words.join(" "));
  return value === null ? null : { value, per: per ?? "month" };
}

export const currencyWord = (code: string): string =>
  ({ GBP: "pound", EUR: "euro", USD: "dollar" })[code] ?? "unit";

export const plural = (n: number, one: string, many = `${one}s`): string =>
  `${number(n)} ${n === 1 ? one : many}`;
