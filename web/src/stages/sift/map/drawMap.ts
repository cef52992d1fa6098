import type { SheetBlock } from "../../../data/client";
import type { Inks } from "../../../look/inks";
import { sans } from "../../../look/tokens";
import { money, number } from "../../../parts/format";
import { clearLabels, margin, type Place, type Point, type Scales } from "./mapShapes";
import { petalLayer } from "./petals";
import type { Picture } from "./picture";

type Scene = {
  sheet: SheetBlock;
  petals: readonly Picture[];
  places: readonly Place[];
  scales: Scales;
  size: Point;
  chosen: ReadonlySet<number>;
  here: number | null;
  shape: readonly Point[];
  limit: number;
  currency: string;
  /** Rows by what they bring: who is named first where there is little room. */
  ranked: readonly number[];
  inks: Inks;
};

const labelHeight = 15;
/** Pixels from the top under which no figure runs into what the axis counts. */
const clearOfHead = 20;
const mostLabels = 60;
const mostTried = 900;

/** Draw the map: grid, ceiling line, a petal for each keyword, labels where there is room. */
export function drawMap(context: CanvasRenderingContext2D, scene: Scene): void {
  const [width, height] = scene.size;
  context.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
  context.clearRect(0, 0, width, height);
  context.font = `12px ${sans}`;
  drawGrid(context, scene);
  context.save();
  context.beginPath();
  context.rect(margin.left, 0, width - margin.left, height - margin.bottom);
  context.clip();
  drawLimit(context, scene);
  context.drawImage(petalLayer(scene.petals, scene.places, scene.size), 0, 0, width, height);
  drawHere(context, scene);
  drawLabels(context, scene);
  drawShape(context, scene);
  context.restore();
}

function drawGrid(
  context: CanvasRenderingContext2D,
  { scales, currency, size: [width, height], inks: ink }: Scene,
): void {
  context.fillStyle = ink.ink2;
  context.strokeStyle = ink.rule;
  context.lineWidth = 1;
  context.textAlign = "center";
  for (const price of decades(scales.price.domain())) {
    const x = scales.price(price);
    if (x < margin.left || x > width) continue;
    stroke(context, [x, margin.top], [x, height - margin.bottom]);
    context.fillText(price < 1 ? money(price) : number(price), x, height - 14);
  }
  context.textAlign = "right";
  for (const volume of decades(scales.searches.domain())) {
    const y = scales.searches(volume);
    if (y < 0 || y > height - margin.bottom) continue;
    stroke(context, [margin.left, y], [width, y]);
    if (y > clearOfHead) context.fillText(number(volume), margin.left - 6, y + 4);
  }
  context.fillText(`price a click, ${currency} →`, width - 8, height - 2);
  context.textAlign = "left";
  context.fillText("searches a month ↑", 2, 11);
}

function decades([low = 0.1, high = 10]: number[]): number[] {
  const ticks: number[] = [];
  for (let power = Math.floor(Math.log10(low)); power <= Math.log10(high); power++)
    for (const times of [1, 3]) ticks.push(times * 10 ** power);
  return ticks.filter((tick) => tick >= low && tick <= high);
}

function drawLimit(
  context: CanvasRenderingContext2D,
  { scales, size, limit, inks: ink }: Scene,
): void {
  if (limit <= 0) return;
  const x = scales.price(limit);
  context.strokeStyle = ink.petal;
  context.lineWidth = 1.5;
  stroke(context, [x, 0], [x, size[1]]);
  context.fillStyle = ink.petalDeep;
  context.textAlign = "right";
  context.fillText(`ceiling ${money(limit)}`, x - 5, margin.top + 4);
}

function drawHere(context: CanvasRenderingContext2D, { places, here, inks: ink }: Scene): void {
  const place = here === null ? undefined : places.find(({ row }) => row === here);
  if (!place) return;
  context.beginPath();
  context.arc(place.x, place.y, 10, 0, 2 * Math.PI);
  context.strokeStyle = ink.ink;
  context.stroke();
}

function drawLabels(context: CanvasRenderingContext2D, scene: Scene): void {
  const { sheet, chosen, here, size, inks: ink } = scene;
  const inside = scene.places.filter(
    ({ x, y }) => x > margin.left && x < size[0] && y > 0 && y < size[1],
  );
  const text = (row: number) => sheet.texts.text[row] ?? "";
  context.textAlign = "left";
  const labels = clearLabels(
    mostWorthNaming(scene, inside),
    inside,
    (row) => widthOf(context, text(row)),
    labelHeight,
    mostLabels,
    size[0],
  );
  for (const { row, start, y } of labels) {
    context.fillStyle = row === here || chosen.has(row) ? ink.ink : ink.ink2;
    context.fillText(text(row), start, y + 4);
  }
}

/** Where the planner stands, what is chosen, then by what they bring. */
function mostWorthNaming({ here, chosen, ranked }: Scene, inside: readonly Place[]): Place[] {
  const left = new Map(inside.map((place) => [place.row, place]));
  const order: Place[] = [];
  for (const rows of [here === null ? [] : [here], chosen, ranked])
    for (const row of rows) {
      if (order.length === mostTried) return order;
      const place = left.get(row);
      if (place) order.push(place);
      left.delete(row);
    }
  return order;
}

const widths = new Map<string, number>();

function widthOf(context: CanvasRenderingContext2D, text: string): number {
  const held = widths.get(text);
  if (held !== undefined) return held;
  const { width } = context.measureText(text);
  if (widths.size > 50_000) widths.clear();
  widths.set(text, width);
  return width;
}

function drawShape(context: CanvasRenderingContext2D, { shape, inks: ink }: Scene): void {
  const [first, last] = [shape[0], shape[shape.length - 1]];
  if (!first || !last || shape.length < 2) return;
  context.beginPath();
  if (shape.length === 2) context.rect(first[0], first[1], last[0] - first[0], last[1] - first[1]);
  else shape.forEach(([x, y], at) => (at ? context.lineTo(x, y) : context.moveTo(x, y)));
  context.fillStyle = `${ink.petal}22`;
  context.strokeStyle = ink.petal;
  context.fill();
  context.stroke();
}

function stroke(context: CanvasRenderingContext2D, from: Point, to: Point): void {
  context.beginPath();
  context.moveTo(...from);
  context.lineTo(...to);
  context.stroke();
}
