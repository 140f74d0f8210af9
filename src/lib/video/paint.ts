import type { Box } from '$lib/core/narration/frames.ts';
import type { Mark } from '$lib/core/narration/layout/mark.ts';
import { atRest, type MovedMark } from '$lib/core/narration/motion.ts';

export type Context = OffscreenCanvasRenderingContext2D | CanvasRenderingContext2D;
export type Pictures = ReadonlyMap<string, ImageBitmap>;

/** How far a picture that fills its box is drawn in, and one that is shown whole. */
const DRAWN_IN = 0.14;
const DRAWN_IN_WHOLE = 0.05;

/** Paints marks that stand still. */
export const paintStill = (
  context: Context,
  marks: readonly Mark[],
  pictures: Pictures,
  scale = 1
): void => paint(context, marks.map(atRest), pictures, scale);

/**
 * Paints a card: the one painter of previews, thumbnails and the finished video.
 * @param scale pixels of the canvas for each pixel of the frame
 */
export function paint(
  context: Context,
  marks: readonly MovedMark[],
  pictures: Pictures,
  scale = 1
): void {
  context.setTransform(scale, 0, 0, scale, 0, 0);
  context.imageSmoothingQuality = 'high';
  for (const moved of marks) {
    if (moved.opacity <= 0.004) continue;
    const isStill =
      moved.opacity === 1 &&
      moved.scale === 1 &&
      moved.shift.x === 0 &&
      moved.shift.y === 0 &&
      moved.shown.x === 1 &&
      moved.shown.y === 1;
    if (isStill) {
      paintMark(context, moved.mark, pictures, moved.progress);
      continue;
    }
    context.save();
    place(context, moved);
    paintMark(context, moved.mark, pictures, moved.progress);
    context.restore();
  }
}

function place(context: Context, { mark, opacity, shift, scale, shown }: MovedMark): void {
  context.globalAlpha = opacity;
  const box = boxOf(context, mark);
  if (shown.x < 1 || shown.y < 1) {
    context.beginPath();
    context.rect(box.x, box.y, box.width * shown.x, box.height * shown.y);
    context.clip();
  }
  if (scale !== 1) {
    const y = box.y + box.height / 2;
    context.translate(box.x * (1 - scale), y * (1 - scale));
    context.scale(scale, scale);
  }
  context.translate(shift.x, shift.y);
}

/** The room that a mark takes; of text, with what hangs below its line. */
export function boxOf(context: Context, mark: Mark): Box {
  if (mark.kind !== 'text') return mark.box;
  const { size, weight, family } = mark.font;
  context.font = `${weight} ${size}px ${family}`;
  const width = context.measureText(mark.text).width + size * 0.2;
  const x = mark.align === 'middle' ? mark.x - width / 2 : mark.x - size * 0.1;
  return { x, y: mark.y - size * 1.05, width, height: size * 1.5 };
}

function paintMark(context: Context, mark: Mark, pictures: Pictures, progress: number): void {
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

function paintPicture(
  context: Context,
  picture: ImageBitmap,
  box: Box,
  shown: 'contain' | 'cover' | 'moved',
  progress: number
): void {
  const fits = [box.width / picture.width, box.height / picture.height] as const;
  // Eased, so that it neither starts nor stops with a jerk.
  const eased = 0.5 - 0.5 * Math.cos(Math.PI * progress);
  if (shown === 'contain') {
    const fitted = Math.min(...fits);
    const [w, h] = [picture.width * fitted, picture.height * fitted];
    const [x, y] = [box.x + (box.width - w) / 2, box.y + (box.height - h) / 2];
    if (progress > 0 && progress < 1) context.imageSmoothingQuality = 'low';
    // Drawn in a little within its own edges.
    const zoom = 1 + DRAWN_IN_WHOLE * eased;
    const [sw, sh] = [picture.width / zoom, picture.height / zoom];
    context.drawImage(
      picture,
      (picture.width - sw) / 2,
      (picture.height - sh) / 2,
      sw,
      sh,
      x,
      y,
      w,
      h
    );
    return;
  }
  const scale = Math.max(...fits) * (shown === 'moved' ? 1 + DRAWN_IN : 1);
  const [w, h] = [box.width / scale, box.height / scale];
  if (progress > 0 && progress < 1) context.imageSmoothingQuality = 'low';
  // Across the longer spare side.
  const way = shown === 'moved' ? eased : 0.5;
  const [spareX, spareY] = [picture.width - w, picture.height - h];
  const x = spareX * (spareX >= spareY ? way : 0.5);
  const y = spareY * (spareX >= spareY ? 0.5 : way);
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
