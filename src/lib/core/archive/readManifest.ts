import { JSONParser } from '@streamparser/json';
import {
  ARCHIVE_VERSION,
  archiveFileSchema,
  manifestHeadSchema,
  type ArchiveFile,
  type ManifestHead
} from './manifest.ts';
import { ArchiveError } from './problem.ts';

/**
 * Reads a manifest as it comes: the list of tens of thousands of files would take several times its size, if it were
 * read at once.
 * @param blocks UTF-8
 * @param onFile takes each file of the list; what it was given counts only where nothing is thrown
 * @throws ArchiveError where it is no manifest, or cannot be read
 */
export async function readManifest(
  blocks: AsyncIterable<Uint8Array>,
  onFile: (file: ArchiveFile) => void
): Promise<ManifestHead> {
  const told: Record<string, unknown> = {};
  let [listed, isListSound] = [0, true];
  const fields = Object.keys(manifestHeadSchema.shape).map((field) => `$.${field}`);
  const parser = new JSONParser({ paths: [...fields, '$.files.*'], keepStack: false });
  parser.onValue = ({ value, key, stack }) => {
    if (stack.length === 1) {
      told[String(key)] = value;
      return;
    }
    const { data } = archiveFileSchema.safeParse(value);
    if (data && typeof key === 'number') onFile(data);
    else isListSound = false;
    listed++;
  };
  const damaged = new ArchiveError({ kind: 'manifest-damaged' });
  try {
    for await (const block of blocks) parser.write(block);
  } catch {
    throw damaged;
  }
  if (!parser.isEnded) throw damaged;
  if (told.format !== 'swift-twin-archive') throw new ArchiveError({ kind: 'not-an-archive' });
  if (typeof told.version === 'number' && told.version > ARCHIVE_VERSION)
    throw new ArchiveError({ kind: 'later-version' });
  const { data } = manifestHeadSchema.safeParse(told);
  if (!data || !isListSound || listed === 0) throw damaged;
  return data;
}
