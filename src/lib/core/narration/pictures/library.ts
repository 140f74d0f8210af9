import { z } from 'zod';

/** A picture of the user's own, or a frame of a clip of theirs, that videos may show. */
export const libraryPictureSchema = z.object({
  /** The name under which its file is kept. */
  id: z.string(),
  /** Its file, with the folders it lay in. */
  path: z.string(),
  /** What it shows, in the user's words. */
  words: z.string(),
  /** Who made it, where that has to be said. */
  credit: z.string(),
  /** Of a frame of a clip: its second. */
  second: z.number().nullable(),
  /** ISO 8601. */
  added: z.string()
});
export type LibraryPicture = z.infer<typeof libraryPictureSchema>;

/** Names that cameras give, which say nothing. */
const NUMBERED =
  /^(?:img|dsc[nf]?|pxl|dji|gopr|mvi|vid|p|screenshot|photo|image|bild|foto)?[\s\d]*$/i;

/** What the name of a file and its folders tell of a picture: "studio/broken-heddle_2.jpg" is "studio broken heddle 2". */
export function wordsOfPath(path: string): string {
  const parts = path.replace(/\.\w+$/, '').split('/');
  return parts
    .map((part) =>
      part
        .replace(/(?<=\p{Ll})(?=\p{Lu})/gu, ' ')
        .replace(/[-_.]+/g, ' ')
        .trim()
    )
    .filter((part) => part && !NUMBERED.test(part))
    .join(' ');
}

/** A name for it that can be read out and shown. */
export const altOf = ({ words, path }: Pick<LibraryPicture, 'words' | 'path'>): string =>
  words || wordsOfPath(path.split('/').at(-1) ?? '');
