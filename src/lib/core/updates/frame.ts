/** A part of a picture, in its pixels. */
export interface Cut {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * The largest part of a picture that has the shape a place shows, with the subject as near to its
 * middle as the edges allow.
 * @param size pixels
 * @param shape width over height; null takes the whole
 * @param subject shares of width and height
 */
export function cutAround(
  size: { width: number; height: number },
  shape: number | null,
  subject: { x: number; y: number }
): Cut {
  const { width: w, height: h } = size;
  if (!shape) return { x: 0, y: 0, width: w, height: h };
  const width = Math.max(1, Math.min(w, Math.round(h * shape)));
  const height = Math.max(1, Math.min(h, Math.round(w / shape)));
  const start = (whole: number, part: number, share: number) =>
    Math.round(Math.min(whole - part, Math.max(0, whole * share - part / 2)));
  return { x: start(w, width, subject.x), y: start(h, height, subject.y), width, height };
}
