// one formatter: each costs more to make than all twelve names cost to write
const named = new Intl.DateTimeFormat("en-GB", { month: "long", timeZone: "UTC" });
const months = Array.from({ length: 12 }, (_, at) => named.format(Date.UTC(2027, at, 1)));

/** A day as it reads in a sentence: 1 March 2027. */
export function daySaid(iso: string): string {
  const [year, month, day] = iso.split("-").map(Number);
  return `${day} ${months[(month ?? 1) - 1]} ${year}`;
}

/** A day as short as an axis has room for: 1 Mar. */
export function dayShort(iso: string): string {
  const [day, month] = daySaid(iso).split(" ");
  return `${day} ${month!.slice(0, 3)}`;
}

/** The day a text names, as ISO 8601; null where it names none that there is. */
export function dayRead(text: string): string | null {
  const iso = /^\s*(\d{4})-(\d{1,2})-(\d{1,2})\s*$/.exec(text);
  const said = /^\s*(\d{1,2})\.?\s+(\p{L}{3,})\.?\s+(\d{4})\s*$/u.exec(text);
  if (iso) return whole(Number(iso[1]), Number(iso[2]), Number(iso[3]));
  if (!said) return null;
  const named = said[2]!.toLowerCase();
  const month = months.findIndex((name) => name.toLowerCase().startsWith(named));
  return month < 0 ? null : whole(Number(said[3]), month + 1, Number(said[1]));
}

function whole(year: number, month: number, day: number): string | null {
  const date = new Date(Date.UTC(year, month - 1, day));
  const there = date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
  return there ? date.toISOString().slice(0, 10) : null;
}

/** Today where the planner sits, as ISO 8601. */
export const today = (): string => dayOf(new Date().toISOString());

/** The day of a moment where the planner sits, as ISO 8601; empty for no moment. */
export function dayOf(moment: string): string {
  const at = new Date(moment);
  return whole(at.getFullYear(), at.getMonth() + 1, at.getDate()) ?? "";
}

/** The moment a day begins where the planner sits, to hold the program's own times against; null for no day. */
export function beginOf(iso: string): string | null {
  const day = dayRead(iso);
  return day && new Date(`${day}T00:00`).toISOString().slice(0, "2027-03-01T00:00:00".length);
}

const dayLength = 24 * 60 * 60 * 1000;

/** How many days lie between two days, as ISO 8601; 0 for the same. */
export const daysBetween = (first: string, last: string): number =>
  Math.round((Date.parse(last) - Date.parse(first)) / dayLength);
