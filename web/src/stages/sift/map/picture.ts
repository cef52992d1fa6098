/** Pixels row by row, each as red, green, blue and alpha from its lowest byte up. */
export type Picture = { width: number; pixels: Uint32Array };

/** Lay a small picture over a large one; what would lie outside is left out. */
export function lay(onto: Picture, small: Picture, left: number, top: number): void {
  const height = onto.pixels.length / onto.width;
  const rows = small.pixels.length / small.width;
  for (let y = Math.max(0, -top); y < rows && top + y < height; y++)
    for (let x = Math.max(0, -left); x < small.width && left + x < onto.width; x++) {
      const over = small.pixels[y * small.width + x]!;
      const alpha = over >>> 24;
      if (alpha === 0) continue;
      const at = (top + y) * onto.width + left + x;
      const under = onto.pixels[at]!;
      onto.pixels[at] = alpha === 255 || under >>> 24 === 0 ? over : mixed(under, over);
    }
}

/** One colour over another, neither of them opaque. */
function mixed(under: number, over: number): number {
  const alpha = over >>> 24;
  const rest = ((under >>> 24) * (255 - alpha)) / 255;
  const all = alpha + rest;
  const channel = (by: number) =>
    Math.round((((over >>> by) & 255) * alpha + ((under >>> by) & 255) * rest) / all) << by;
  return ((Math.round(all) << 24) | channel(16) | channel(8) | channel(0)) >>> 0;
}
