import { v4 } from 'uuid';
import type { LibraryPicture } from '$lib/core/narration/pictures/library.ts';
import { wordsOfPath } from '$lib/core/narration/pictures/library.ts';
import { saveMedia } from '$lib/data/media.ts';
import { libraryPictures, saveLibraryPictures } from '$lib/data/library.ts';
import { framesOfFile } from '$lib/video/stills.ts';
import { toBitmap } from '$lib/video/pictures.ts';
import { runTask } from './tasks.svelte.ts';

/** A file with the folders it lay in. */
export interface FoundFile {
  file: File;
  path: string;
}

/** Frames that are taken of a clip, as shares of its length. */
const SHARES = [0.1, 0.35, 0.6, 0.85];

/**
 * Takes pictures into the library, and frames of clips. A file that is there already, by its path and size, is
 * passed over.
 * @returns how many were taken, and the names of files that are neither pictures nor clips
 */
export function addToLibrary(
  files: readonly FoundFile[]
): Promise<{ added: number; unread: string[] }> {
  return runTask('Adding pictures', async (signal, report) => {
    const known = new Set((await libraryPictures()).map((p) => p.path));
    const unread: string[] = [];
    let added = 0;
    for (const [i, { file, path }] of files.entries()) {
      signal.throwIfAborted();
      report(file.name, i / files.length);
      if (known.has(path)) continue;
      const stills = await stillsOf(file);
      if (stills.length === 0) unread.push(file.name);
      await saveLibraryPictures(
        await Promise.all(stills.map((still) => keep(still.blob, path, still.second)))
      );
      added += Math.min(1, stills.length);
    }
    return { added, unread };
  });
}

async function stillsOf(file: File): Promise<{ blob: Blob; second: number | null }[]> {
  const bitmap = await toBitmap(file);
  bitmap?.close();
  if (bitmap) return [{ blob: file, second: null }];
  return framesOfFile(file, SHARES);
}

async function keep(blob: Blob, path: string, second: number | null): Promise<LibraryPicture> {
  const id = `own:library/${v4()}`;
  const name = path.split('/').at(-1) ?? path;
  await saveMedia({ id, name, blob });
  return {
    id,
    path,
    words: wordsOfPath(path),
    credit: '',
    second,
    added: new Date().toISOString()
  };
}
