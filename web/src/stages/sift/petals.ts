import { ink } from "../../look/tokens";
import type { SheetBlock } from "../../data/client";
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

const stamp = 16;
const stamps = new Map<string, Picture>();
let layer: { canvas: HTMLCanvasElement; image: ImageData } | null = null;

/**
 * Petals of thousands of keywords as one picture: full in reach, half for a stretch, outline
 * beyond, as everywhere. Each look is drawn once and its pixels are copied, since drawing
 * thousands one by one costs the map its frame rate.
 */
export function petalsOf(
  sheet: SheetBlock,
  places: readonly Place[],
  chosen: ReadonlySet<number>,
  [width, height]: Point,
): HTMLCanvasElement {
  const ratio = devicePixelRatio;
  const { canvas, image } = layerOf(Math.ceil(width * ratio), Math.ceil(height * ratio));
  const picture = { width: image.width, pixels: new Uint32Array(image.data.buffer) };
  picture.pixels.fill(0);
  for (const { row, x, y } of places) {
    if (x < -stamp || x > width + stamp || y < -stamp || y > height + stamp) continue;
    const left = Math.round((x - stamp / 2) * ratio);
    lay(picture, stampOf(lookOf(sheet, row, chosen)), left, Math.round((y - stamp / 2) * ratio));
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

function lookOf({ figures, texts }: SheetBlock, row: number, chosen: ReadonlySet<number>): Look {
  const [standing, call] = [figures.standing[row], texts.call[row]];
  const alpha = call === "drop" || call === "block" ? 0.35 : 1;
  const size = call === "keep" ? 6 : 4.5;
  if (chosen.has(row)) return { hue: ink.rose, edge: ink.rose, alpha, fill: "full", size };
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
  made.width = made.height = Math.round(stamp * devicePixelRatio);
  const context = made.getContext("2d")!;
  context.scale(devicePixelRatio, devicePixelRatio);
  drawPetal(context, look);
  const { data, width } = context.getImageData(0, 0, made.width, made.height);
  const picture = { width, pixels: new Uint32Array(data.buffer) };
  stamps.set(key, picture);
  return picture;
}

function drawPetal(context: CanvasRenderingContext2D, look: Look): void {
  const middle = { x: stamp / 2, y: stamp / 2 };
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
