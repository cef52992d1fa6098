// @vitest-environment node
import { beginOf, dayOf, dayRead, daySaid, dayShort, today } from "./days";

it.each([
  ["2027-03-01", "2027-03-01"],
  [" 1 March 2027 ", "2027-03-01"],
  ["28. feb 2027", "2027-02-28"],
  ["29 February 2027", null],
  ["1 Smarch 2027", null],
  ["soon", null],
])("%s is read as %s", (text, day) => expect(dayRead(text)).toBe(day));

it("a day reads as it is said, and back", () => {
  expect(daySaid("2027-09-01")).toBe("1 September 2027");
  expect(dayRead(daySaid("2027-12-31"))).toBe("2027-12-31");
});

it("a day is the planner's own: it begins at midnight there, and today is the one that has begun", () => {
  expect(dayShort("2027-03-01")).toBe("1 Mar");
  expect(beginOf("2027-03-01")).toBe("2027-03-01T03:30:00"); // Newfoundland, three and a half hours late
  expect(beginOf("soon")).toBeNull();
  vi.useFakeTimers({ now: new Date("2027-03-01T02:00:00Z") });
  expect(today()).toBe("2027-02-28");
  vi.useRealTimers();
  expect([dayOf("2027-03-01T02:00:00+00:00"), dayOf("")]).toEqual(["2027-02-28", ""]);
});
