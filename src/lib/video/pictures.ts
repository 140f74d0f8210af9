import { getMedia } from '$lib/data/media.ts';

/** Pictures are kept no larger than they are ever drawn. */
const LARGEST_SIDE = 2560;

/**
 * The pictures of some addresses, from what is kept in the browser.
 * @returns those that can be drawn; an address that is missing has no picture
 */
export async function readPictures(urls: readonly string[]): Promise<Map<string, ImageBitmap>> {
  const pictures = new Map<string, ImageBitmap>();
  for (const url of new Set(urls)) {
    const kept = await getMedia(url);
    const bitmap = kept && (await toBitmap(kept.blob));
    if (bitmap) pictures.set(url, bitmap);
  }
  return pictures;
}

/** A picture file as it can be drawn; null for what is no picture. SVG has no size of its own here. */
export async function toBitmap(blob: Blob): Promise<ImageBitmap | null> {
  try {
    const bitmap = await createImageBitmap(blob);
    const longer = Math.max(bitmap.width, bitmap.height);
    if (longer <= LARGEST_SIDE) return bitmap;
    const scale = LARGEST_SIDE / longer;
    const smaller = await createImageBitmap(bitmap, {
      resizeWidth: Math.round(bitmap.width * scale),
      resizeHeight: Math.round(bitmap.height * scale),
      resizeQuality: 'high'
    });
    bitmap.close();
    return smaller;
  } catch {
    return null;
  }
}
