import type { Draft } from './draft.ts';

/** Whether the warp lies on top at thread `x` of pick `y`. */
export function warpOnTop(draft: Draft, x: number, y: number): boolean {
  const shaft = draft.threading[x % draft.threading.length] ?? 0;
  const treadle = draft.treadling[y % draft.treadling.length] ?? 0;
  return draft.tieUp[treadle]?.[shaft] === 1;
}

/**
 * The woven cloth of a draft as SVG. `grown` is the share of it that is woven already, from
 * the bottom; above it the bare warp shows.
 */
export function clothSvg(
  draft: Draft,
  width: number,
  height: number,
  grown = 1,
  caption: string[] = []
): string {
  const square = Math.round(Math.min(width, height) / 24);
  const across = Math.ceil(width / square);
  const down = Math.ceil(height / square);
  const bare = Math.round(down * (1 - grown));
  const gap = Math.max(1, square * 0.12);
  const rects: string[] = [];
  for (let x = 0; x < across; x++) {
    rects.push(
      `<rect x="${x * square + gap / 2}" y="0" width="${square - gap}" height="${height}" fill="${draft.warp}"/>`
    );
  }
  for (let y = bare; y < down; y++) {
    for (let x = 0; x < across;) {
      let run = 0;
      while (x + run < across && !warpOnTop(draft, x + run, down - y)) run++;
      if (run) {
        rects.push(
          `<rect x="${x * square - gap / 2}" y="${y * square + gap / 2}" width="${run * square + gap}" height="${square - gap}" rx="${square * 0.25}" fill="${draft.weft}"/>`
        );
      }
      x += run + 1;
    }
  }
  const size = Math.round(Math.min(width, height) / 13);
  const lines = caption.map(
    (line, i) =>
      `<text x="${size}" y="${height - size * (caption.length - i) * 1.35 + size * 0.5}" font-family="DejaVu Sans" font-size="${size * (i === 0 ? 1 : 0.8)}" fill="white">${line.replaceAll('&', '&amp;').replaceAll('<', '&lt;')}</text>`
  );
  const band = caption.length
    ? `<rect x="0" y="${height - size * (caption.length * 1.35 + 0.8)}" width="${width}" height="${height}" fill="black" fill-opacity="0.62"/>`
    : '';
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><rect width="100%" height="100%" fill="#2b2926"/>${rects.join('')}${band}${lines.join('')}</svg>`;
}
