import type { Inks } from "../../../look/inks";
import type { SheetBlock } from "../../../data/client";
import type { Place, Point } from "./mapShapes";
import { lay, type Picture } from "./picture";

type Spot = Pick<Place, "x" | "y">;
type Look = {
  hue: string;
  edge: string;
  alpha: number;
  fill: "full" | "half" | "none";
  size: number;
};

/** What a petal's picture takes, in pixels of the screen: no more than it needs. */
const [across, along] = [8, 14];
const stamps = new Map<string, Picture>();
let layer: { canvas: HTMLCanvasElement; image: ImageData } | null = null;

/** The petal of each keyword of the sheet, by row; each look is drawn once. */
export function petalsOf(sheet: SheetBlock, chosen: ReadonlySet<number>, inks: Inks): Picture[] {
  return sheet.texts.id.map((_, row) => stampOf(lookOf(sheet, row, chosen, inks)));
}

/**
 * Petals of thousands of keywords as one picture, their pixels copied by hand: to have a
 * canvas draw them one by one costs the map its frame rate.
 */
export function petalLayer(
  petals: readonly Picture[],
  places: readonly Place[],
  [width, height]: Point,
): HTMLCanvasElement {
  const ratio = devicePixelRatio;
  const { canvas, image } = layerOf(Math.ceil(width * ratio), Math.ceil(height * ratio));
  const picture = { width: image.width, pixels: new Uint32Array(image.data.buffer) };
  picture.pixels.fill(0);
  for (const { row, x, y } of places) {
    if (x < -across || x > width + across || y < -along || y > height + along) continue;
    const petal = petals[row];
    const [left, top] = [(x - across / 2) * ratio, (y - along / 2) * ratio];
    if (petal) lay(picture, petal, Math.round(left), Math.round(top));
  }
  canvas.getContext("2d")?.putImageData(image, 0, 0);
  return canvas;
}

function layerOf(width: number, height: number) {
  if (layer?.image.width === width && layer.image.height === height) return layer;
  const canvas = document.createElement("canvas");
  [canvas.width, canvas.height] = [Math.max(1, width), Math.max(1, height)];
  layer = { canvas, image: new ImageData(canvas.width, canvas.height) };
  return layer;
}

/** Full in reach, half for a stretch, outline beyond, as everywhere. */
function lookOf(
  { figures, texts }: SheetBlock,
  row: number,
  chosen: ReadonlySet<number>,
  ink: Inks,
): Look {
  const [standing, call] = [figures.standing[row], texts.call[row]];
  const alpha = call === "drop" || call === "block" ? 0.35 : 1;
  const size = call === "keep" ? 6 : 4.5;
  if (chosen.has(row))
    return { hue: ink.petalDeep, edge: ink.petalDeep, alpha: 1, fill: "full", size: size + 2.5 };
  if (standing === "stretch") return { hue: ink.straw, edge: ink.straw, alpha, fill: "half", size };
  if (standing === "in_reach")
    return { hue: ink.petal, edge: ink.petal, alpha, fill: "full", size };
  return { hue: ink.petal, edge: ink.ink3, alpha, fill: "none", size };
}

function stampOf(look: Look): Picture {
  const key = `${look.hue}${look.edge}${look.alpha}${look.fill}${look.size}@${devicePixelRatio}`;
  const held = stamps.get(key);
  if (held) return held;
  const made = document.createElement("canvas");
  made.width = Math.round(across * devicePixelRatio);
  made.height = Math.round(along * devicePixelRatio);
  const context = made.getContext("2d");
  if (!context) return { width: 1, pixels: new Uint32Array(1) };
  context.scale(devicePixelRatio, devicePixelRatio);
  drawPetal(context, look);
  const { data, width } = context.getImageData(0, 0, made.width, made.height);
  const picture = { width, pixels: new Uint32Array(data.buffer) };
  stamps.set(key, picture);
  return picture;
}

function drawPetal(context: CanvasRenderingContext2D, look: Look): void {
  const middle = { x: across / 2, y: along / 2 };
  context.globalAlpha = look.alpha;
  context.fillStyle = look.hue;
  context.strokeStyle = look.edge;
  context.lineWidth = 1.1;
  context.beginPath();
  petal(context, middle, look.size);
  if (look.fill === "full") context.fill();
  context.stroke();
  if (look.fill !== "half") return;
  context.beginPath();
  lowerHalf(context, middle, look.size);
  context.fill();
}

function petal(context: CanvasRenderingContext2D, { x, y }: Spot, size: number): void {
  context.moveTo(x, y - size);
  context.quadraticCurveTo(x + size * 0.9, y, x, y + size);
  context.quadraticCurveTo(x - size * 0.9, y, x, y - size);
}

function lowerHalf(context: CanvasRenderingContext2D, { x, y }: Spot, size: number): void {
  context.moveTo(x - size * 0.45, y);
  context.quadraticCurveTo(x - size * 0.4, y + size * 0.5, x, y + size);
  context.quadraticCurveTo(x + size * 0.4, y + size * 0.5, x + size * 0.45, y);
}
