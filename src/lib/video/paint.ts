import type { Box } from '$lib/core/narration/frames.ts';
import type { Mark } from '$lib/core/narration/layout.ts';

type Context = OffscreenCanvasRenderingContext2D | CanvasRenderingContext2D;
export type Pictures = ReadonlyMap<string, ImageBitmap>;

/** How far a moved picture is drawn in, and how far it travels. */
const DRAWN_IN = 0.14;

/**
 * Paints a card: the one painter of previews, thumbnails and the finished video.
 * @param progress how much of the scene is over, between 0 and 1; moves what moves
 * @param scale pixels of the canvas for each pixel of the frame
 */
export function paint(
  context: Context,
  marks: readonly Mark[],
  pictures: Pictures,
  progress = 0,
  scale = 1
): void {
  context.setTransform(scale, 0, 0, scale, 0, 0);
  context.imageSmoothingQuality = 'high';
  for (const mark of marks) {
    switch (mark.kind) {
      case 'rect':
        context.fillStyle = mark.colour;
        if (mark.radius) {
          context.beginPath();
          context.roundRect(mark.box.x, mark.box.y, mark.box.width, mark.box.height, mark.radius);
          context.fill();
        } else context.fillRect(mark.box.x, mark.box.y, mark.box.width, mark.box.height);
        break;
      case 'text':
        context.font = `${mark.font.weight} ${mark.font.size}px ${mark.font.family}`;
        context.fillStyle = mark.colour;
        context.textBaseline = 'alphabetic';
        // The text decides by itself which way it runs; it stands on the left all the same.
        context.direction = /[\u0590-\u08ff]/.test(mark.text) ? 'rtl' : 'ltr';
        context.textAlign = mark.align === 'middle' ? 'center' : 'left';
        context.fillText(mark.text, mark.x, mark.y);
        break;
      case 'picture': {
        const picture = pictures.get(mark.url);
        if (picture) paintPicture(context, picture, mark.box, mark.shown, progress);
        break;
      }
      case 'cells':
        paintCells(context, mark.rows, mark.box, mark.colour);
    }
  }
}

function paintPicture(
  context: Context,
  picture: ImageBitmap,
  box: Box,
  shown: 'contain' | 'cover' | 'moved',
  progress: number
): void {
  const fits = [box.width / picture.width, box.height / picture.height] as const;
  if (shown === 'contain') {
    const scale = Math.min(...fits);
    const [w, h] = [picture.width * scale, picture.height * scale];
    context.drawImage(picture, box.x + (box.width - w) / 2, box.y + (box.height - h) / 2, w, h);
    return;
  }
  const scale = Math.max(...fits) * (shown === 'moved' ? 1 + DRAWN_IN : 1);
  const [w, h] = [box.width / scale, box.height / scale];
  // Across the longer spare side; eased, so that it neither starts nor stops with a jerk.
  const eased = shown === 'moved' ? 0.5 - 0.5 * Math.cos(Math.PI * progress) : 0.5;
  const [spareX, spareY] = [picture.width - w, picture.height - h];
  const x = spareX * (spareX >= spareY ? eased : 0.5);
  const y = spareY * (spareX >= spareY ? 0.5 : eased);
  context.drawImage(picture, x, y, w, h, box.x, box.y, box.width, box.height);
}

function paintCells(
  context: Context,
  rows: readonly (readonly boolean[])[],
  box: Box,
  colour: string
): void {
  context.fillStyle = colour;
  const columns = rows[0]?.length ?? 0;
  const [w, h] = [box.width / columns, box.height / rows.length];
  // Edges on whole pixels: a code with grey seams reads badly.
  const edge = (from: number, step: number, n: number) => Math.round(from + step * n);
  for (const [r, row] of rows.entries()) {
    for (const [c, isDark] of row.entries()) {
      if (!isDark) continue;
      const [x, y] = [edge(box.x, w, c), edge(box.y, h, r)];
      context.fillRect(x, y, edge(box.x, w, c + 1) - x, edge(box.y, h, r + 1) - y);
    }
  }
}
