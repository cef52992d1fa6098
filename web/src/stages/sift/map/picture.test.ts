// @vitest-environment node
import { lay, type Picture } from "./picture";

const rgba = (red: number, green: number, blue: number, alpha = 255) =>
  ((alpha << 24) | (blue << 16) | (green << 8) | red) >>> 0;
const red = rgba(255, 0, 0);
const blue = rgba(0, 0, 255);
const blank = (width: number, height: number): Picture => ({
  width,
  pixels: new Uint32Array(width * height),
});
const filled = (width: number, colour: number): Picture => ({
  width,
  pixels: new Uint32Array(width * width).fill(colour),
});
const places = ({ pixels }: Picture, colour: number) =>
  [...pixels.keys()].filter((at) => pixels[at] === colour);

it("a picture is laid where it is asked for, and nowhere else", () => {
  const sheet = blank(5, 4);
  lay(sheet, filled(2, red), 2, 1);
  expect(places(sheet, red)).toEqual([7, 8, 12, 13]);
  expect(places(sheet, 0)).toHaveLength(16);
});

it.each([
  [-1, -1, [0]],
  [4, 3, [19]],
  [4, 1, [9, 14]],
  [-2, 0, []],
  [5, 4, []],
])("at %d, %d only what lies inside is drawn", (left, top, drawn) => {
  const sheet = blank(5, 4);
  lay(sheet, filled(2, red), left, top);
  expect(places(sheet, red)).toEqual(drawn);
});

it("what is opaque covers, what is clear leaves, what is neither is mixed", () => {
  const sheet = filled(1, red);
  lay(sheet, filled(1, 0), 0, 0);
  expect(sheet.pixels[0]).toBe(red);
  lay(sheet, filled(1, rgba(0, 0, 255, 51)), 0, 0);
  expect(sheet.pixels[0]).toBe(rgba(204, 0, 51));
  lay(sheet, filled(1, blue), 0, 0);
  expect(sheet.pixels[0]).toBe(blue);
});

it("two half-clear pictures let less through than one", () => {
  const sheet = blank(1, 1);
  lay(sheet, filled(1, rgba(0, 0, 0, 128)), 0, 0);
  lay(sheet, filled(1, rgba(0, 0, 0, 128)), 0, 0);
  expect(sheet.pixels[0]! >>> 24).toBe(192);
});
