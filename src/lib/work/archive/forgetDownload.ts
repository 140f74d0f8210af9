import { readFile, removeFiles } from '$lib/video/files.ts';

/** The file in which an archive lies until the browser has saved it. */
export const DOWNLOAD = 'archive-download.zip';
/** Milliseconds that a browser may take for saving it. */
const LONGEST = 3_600_000;

/** Makes room: an archive that was saved long ago. @param now milliseconds since 1970 */
export async function forgetDownload(now: number): Promise<void> {
  const file = await readFile(DOWNLOAD);
  if (file && now - file.lastModified > LONGEST) await removeFiles([DOWNLOAD]);
}
