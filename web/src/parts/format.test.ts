// @vitest-environment node
import {
  brought,
  count,
  delta,
  money,
  parsed,
  parsedPer,
  percent,
  plural,
  short,
  quoted,
} from "./format";

describe("what a person typed is read as a number", () => {
  it.each([
    ["1,200.50", 1200.5],
    ["1.200,50", 1200.5],
    ["55 %", 55],
    ["£4.20", 4.2],
    ["0,75", 0.75],
    ["1,200", 1200],
    ["1.200", 1.2],
    ["-3", -3],
    ["−3.5", -3.5],
    [".5", 0.5],
    ["1,200,300", 1_200_300],
    ["1.200.300", 1_200_300],
    ["1 200,5", 1200.5],
    ["1’200", 1200],
    ["340 GBP", 340],
    ["EUR 1,50", 1.5],
    ["1.2K", 1200],
    ["3m", 3_000_000],
    ["0,125", 0.125],
    ["1,20,500", 120_500],
    ["-£3", -3],
    ["5 mil", null],
    ["20 day", null],
    ["about", null],
    ["", null],
    ["£", null],
    ["10 to 20", null],
    ["10-20", null],
    ["3 4", null],
    ["1e5", null],
    ["1,2,3", null],
    ["340 with 20 % tax", null],
  ])("%s is %s", (text, value) => expect(parsed(text)).toBe(value));
});

it("one mark before three digits is read as the screen writes its figures", () => {
  expect([parsed("1.200", "."), parsed("1,200", ".")]).toEqual([1.2, 1200]);
  expect([parsed("1.200", ","), parsed("1,200", ",")]).toEqual([1200, 1.2]);
  expect([parsed("0.125", ","), parsed("0,125", ".")]).toEqual([0.125, 0.125]);
  expect([parsed("1.200,5", ","), parsed("12.5", ",")]).toEqual([1200.5, 12.5]);
});

describe("money is said for a month unless it says what for", () => {
  it.each([
    ["20 a day", { value: 20, per: "day" }],
    ["£140/week", { value: 140, per: "week" }],
    ["1,200.50 GBP per month", { value: 1200.5, per: "month" }],
    ["600", { value: 600, per: "month" }],
    ["a day", null],
    ["20 a year", null],
  ])("%s", (text, read) => expect(parsedPer(text)).toEqual(read));
});

it("figures that are not there are a dash", () => {
  expect([money(null), count(undefined), percent(NaN)]).toEqual(["–", "–", "–"]);
});

it("where there is little room, many millions are said as such, and can be typed so", () => {
  expect([short(9_999_999), short(45_000_000), short(-12_345_678), short(null)]).toEqual([
    ...["9,999,999", "45.0M", "−12.3M", "–"],
  ]);
  expect(parsed(short(45_000_000))).toBe(45_000_000);
});

it("what a unit brings is read to two digits at least, however little it is", () => {
  expect([brought(0.01454), brought(0.0000603), brought(0), brought(2.345), brought(42.2)]).toEqual(
    [...["0.0145", "0.000060", "0.0000", "2.35", "42"]],
  );
});

it("counts get the digits they need to be told from nothing", () => {
  expect([count(0), count(0.0042), count(0.42), count(4.2), count(420)]).toEqual([
    "0",
    "0.0042",
    "0.42",
    "4.2",
    "420",
  ]);
});

it("a change too small to see is not shown", () => {
  expect([delta(0.04, 1), delta(0.6, 1), delta(-12, 0)]).toEqual(["", "+0.6", "−12"]);
});

it("whole shares lose their decimals", () => {
  expect([percent(0.55), percent(0.0275)]).toEqual(["55\u00a0%", "2.8\u00a0%"]);
  expect(plural(1, "keyword")).toBe("1 keyword");
});

it("a message repeats what was typed, and of a long text its beginning", () => {
  expect(quoted(" five ")).toBe("“five”");
  expect(quoted("a".repeat(60))).toBe(`“${"a".repeat(60)}”`);
  expect(quoted("🪟".repeat(61))).toBe(`“${"🪟".repeat(60)}…”`);
});
