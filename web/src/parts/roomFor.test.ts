import { count, money, number } from "./format";
import { roomFor, widthOf } from "./roomFor";

it("small figures leave a column as wide as it is", () => {
  expect(roomFor(64, [1.5, null, 99.86, undefined], money)).toBe("64px");
  expect(roomFor(64, [], money)).toBe("64px");
});

it("a column is as wide as its longest figure, which need not be the largest", () => {
  const alone = roomFor(10, [99_999.99], money);
  expect(roomFor(10, [99_999.99, 100_000], money)).toBe(alone);
  expect(parseInt(roomFor(10, [16_854.27], money))).toBeGreaterThan(widthOf("16,854.27"));
  expect(roomFor(10, [99.94, 100], count)).toBe(roomFor(10, [99.94], count));
});

it("leaves room for a sign, and for what stands beside the figure", () => {
  expect(parseInt(roomFor(10, [-5], number))).toBeGreaterThan(parseInt(roomFor(10, [5], number)));
  expect(parseInt(roomFor(10, [5], number, 56)) - parseInt(roomFor(10, [5], number))).toBe(56);
});
