import { existsSync } from 'node:fs';
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { extname, join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress, constants, gzip } from 'node:zlib';

const TEXT = new Set(['.js', '.css', '.html', '.svg', '.json', '.txt', '.webmanifest']);
const LEAST_BYTES = 1024;

/** Lays a pressed copy beside each text file of a folder; the server gives it to browsers that ask for it. */
export async function compressText(folder) {
  // There may be nothing that was rendered beforehand.
  if (!existsSync(folder)) return;
  const entries = await readdir(folder, { recursive: true, withFileTypes: true });
  for (const entry of entries) {
    if (!entry.isFile() || !TEXT.has(extname(entry.name))) continue;
    const path = join(entry.parentPath, entry.name);
    const bytes = await readFile(path);
    if (bytes.length < LEAST_BYTES) continue;
    const quality = { [constants.BROTLI_PARAM_QUALITY]: bytes.length > 300_000 ? 9 : 11 };
    await writeFile(`${path}.gz`, await promisify(gzip)(bytes, { level: 9 }));
    await writeFile(`${path}.br`, await promisify(brotliCompress)(bytes, { params: quality }));
  }
}
