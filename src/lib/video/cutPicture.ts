import { cutAround } from '$lib/core/updates/frame.ts';
import { toBitmap } from './pictures.ts';

const QUALITY = 0.92;

/**
 * A picture cut to a shape around its subject.
 * @param shape width over height
 * @returns the picture itself where it has the shape already; null where it cannot be drawn
 */
export async function cutPicture(
  blob: Blob,
  shape: number,
  subject: { x: number; y: number }
): Promise<Blob | null> {
  const bitmap = await toBitmap(blob);
  if (!bitmap) return null;
  const { x, y, width, height } = cutAround(bitmap, shape, subject);
  if (width === bitmap.width && height === bitmap.height) return blob;
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d', { alpha: false })?.drawImage(bitmap, -x, -y);
  bitmap.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY });
}
