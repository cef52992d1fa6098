import { polygonContains } from "d3-polygon";
import { scaleLog, type ScaleLogarithmic } from "d3-scale";
import type { SheetBlock } from "../../../data/client";

export type Point = [number, number];
export type Zoom = { k: number; x: number; y: number };
export type Scales = {
  price: ScaleLogarithmic<number, number>;
  searches: ScaleLogarithmic<number, number>;
};
export type Place = { row: number; x: number; y: number };

export const margin = { left: 68, right: 16, top: 14, bottom: 30 };
const fewestSearches = 0.5;

/** From the least to the greatest price, and number of searches. */
export type Ends = { prices: Point; volumes: Point };

export function endsOf({ figures }: SheetBlock, limit: number): Ends {
  const prices = ends([...figures.cpc_median, limit > 0 ? limit : null]);
  const volumes = ends(
    figures.searches.map((s) => (s == null ? null : Math.max(s, fewestSearches))),
  );
  return {
    prices: [prices[0] * 0.85, prices[1] * 1.15],
    volumes: [volumes[0] * 0.8, volumes[1] * 1.3],
  };
}

/** Price across, searches upwards; the zoom moves their ends. */
export function scalesOf({ prices, volumes }: Ends, [width, height]: Point, zoom: Zoom): Scales {
  const x = (at: number) => at * zoom.k + zoom.x;
  const y = (at: number) => at * zoom.k + zoom.y;
  return {
    price: scaleLog()
      .domain(prices)
      .range([x(margin.left), x(width - margin.right)]),
    searches: scaleLog()
      .domain(volumes)
      .range([y(height - margin.bottom), y(margin.top)]),
  };
}

function ends(values: (number | null)[]): Point {
  let [low, high] = [Infinity, -Infinity];
  for (const value of values)
    if (value != null && value > 0) [low, high] = [Math.min(low, value), Math.max(high, value)];
  return low <= high ? [low, high] : [0.1, 10];
}

/** Where keywords with a price and a volume lie, left to right. */
export function placesOf(
  { figures }: SheetBlock,
  rows: readonly number[],
  scales: Scales,
): Place[] {
  const places: Place[] = [];
  for (const row of rows) {
    const [price, volume] = [figures.cpc_median[row], figures.searches[row]];
    if (price != null && price > 0 && volume != null)
      places.push({
        row,
        x: scales.price(price),
        y: scales.searches(Math.max(volume, fewestSearches)),
      });
  }
  return places.sort((a, b) => a.x - b.x || a.y - b.y);
}

/** The same places, closer: a zoom moves and stretches both ways alike. */
export const zoomedTo = (places: readonly Place[], { k, x, y }: Zoom): Place[] =>
  places.map((place) => ({ row: place.row, x: place.x * k + x, y: place.y * k + y }));

/** Rows inside a rectangle between two corners, or inside a lasso. */
export function inShape(
  places: readonly Place[],
  shape: readonly Point[],
  lasso: boolean,
): number[] {
  const [first, last] = [shape[0], shape[shape.length - 1]];
  if (!first || !last) return [];
  if (lasso)
    return places
      .filter(({ x, y }) => polygonContains(shape as Point[], [x, y]))
      .map(({ row }) => row);
  const [left, right] = [Math.min(first[0], last[0]), Math.max(first[0], last[0])];
  const [top, bottom] = [Math.min(first[1], last[1]), Math.max(first[1], last[1])];
  return places
    .filter(({ x, y }) => x >= left && x <= right && y >= top && y <= bottom)
    .map(({ row }) => row);
}

const grasp = 12;

/** The keyword under a point; null where none is near. */
export function nearest(places: readonly Place[], [x, y]: Point): number | null {
  let best: number | null = null;
  let least = grasp;
  for (const place of places) {
    const distance = Math.hypot(place.x - x, place.y - y);
    if (distance < least) [least, best] = [distance, place.row];
  }
  return best;
}

/** Closer or further about a point, never further than the whole. */
export function zoomed(zoom: Zoom, size: Point, by: number, about?: Point, closest = 12): Zoom {
  const [cx, cy] = about ?? [size[0] / 2, size[1] / 2];
  const k = Math.max(1, Math.min(closest, zoom.k * by));
  if (k === 1) return { k: 1, x: 0, y: 0 };
  const ratio = k / zoom.k;
  return { k, x: cx - (cx - zoom.x) * ratio, y: cy - (cy - zoom.y) * ratio };
}

/** A label's text begins at `start`: right of its mark, or left of it at the edge. */
export type Label = Place & { start: number };
type Box = [number, number, number, number];

/** Labels that lie over no mark and over none before them, the most important first. */
export function clearLabels(
  places: readonly Place[],
  marks: readonly Place[],
  widthOf: (row: number) => number,
  height: number,
  most: number,
  edge = Infinity,
): Label[] {
  const taken: Box[] = [];
  const kept: Label[] = [];
  const crowd = crowdOf(marks);
  for (const place of places) {
    if (kept.length >= most) break;
    const width = widthOf(place.row);
    const start = place.x + gap + width > edge ? place.x - gap - width : place.x + gap;
    const box: Box = [start, place.y - height / 2, start + width, place.y + height / 2];
    if (taken.some((other) => overlaps(box, other)) || crowd(box, place.row)) continue;
    taken.push(box);
    kept.push({ ...place, start });
  }
  return kept;
}

const gap = 8;
const cell = 16;
/** Of a mark's width. */
const half = 4;

/** Says whether a box lies over another keyword's mark, looked up in a coarse grid of them. */
function crowdOf(marks: readonly Place[]): (box: Box, own: number) => boolean {
  const key = (x: number, y: number) => Math.floor(x / cell) * 10_000 + Math.floor(y / cell);
  const cells = new Map<number, Place[]>();
  for (const mark of marks) {
    const at = key(mark.x, mark.y);
    const held = cells.get(at);
    if (held) held.push(mark);
    else cells.set(at, [mark]);
  }
  return ([left, top, right, bottom], own) => {
    const over = ({ row, x, y }: Place) =>
      row !== own && x > left - half && x < right + half && y > top && y < bottom;
    for (let x = left - half; x < right + half + cell; x += cell)
      for (let y = top; y < bottom + cell; y += cell)
        if (cells.get(key(x, y))?.some(over)) return true;
    return false;
  };
}

const overlaps = (a: Box, b: Box) => a[0] < b[2] && b[0] < a[2] && a[1] < b[3] && b[1] < a[3];
