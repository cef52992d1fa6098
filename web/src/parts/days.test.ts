// @vitest-environment node
import { dayRead, daySaid } from "./days";

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
