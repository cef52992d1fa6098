const names = new Intl.DateTimeFormat("en-GB", { month: "long", timeZone: "UTC" });
const shorts = new Intl.DateTimeFormat("en-GB", { month: "short", timeZone: "UTC" });
const weekdays = new Intl.DateTimeFormat("en-GB", { weekday: "short", timeZone: "UTC" });

const dayOf = (iso: string) => new Date(`${iso}T00:00:00Z`);

/** A month by its name, of any of its days. */
export const monthName = (iso: string): string => names.format(dayOf(iso));

export const monthShort = (iso: string): string => shorts.format(dayOf(iso));

export const weekdayShort = (iso: string): string => weekdays.format(dayOf(iso));

// a Monday, so that the days after it name a week
const monday = Date.UTC(2027, 0, 4);
const dayMilliseconds = 86_400_000;

/** Weekdays by name, Monday first. */
export const weekNames: readonly string[] = [...Array(7).keys()].map((at) =>
  weekdays.format(new Date(monday + at * dayMilliseconds)),
);

/** A time of day: 14.5 is half past two. */
export const clock = (hour: number): string =>
  `${String(Math.floor(hour)).padStart(2, "0")}:${String(Math.floor((hour % 1) * 60)).padStart(2, "0")}`;
