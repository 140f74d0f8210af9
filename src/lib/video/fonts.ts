import sansLatin from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url';
import sansLatinExt from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-wght-normal.woff2?url';
import monoLatin from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-wght-normal.woff2?url';
import monoLatinExt from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-latin-ext-wght-normal.woff2?url';
import monoCyrillic from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-cyrillic-wght-normal.woff2?url';
import monoGreek from '@fontsource-variable/jetbrains-mono/files/jetbrains-mono-greek-wght-normal.woff2?url';
import serifLatin from '@fontsource-variable/literata/files/literata-latin-wght-normal.woff2?url';
import serifLatinExt from '@fontsource-variable/literata/files/literata-latin-ext-wght-normal.woff2?url';
import serifCyrillic from '@fontsource-variable/literata/files/literata-cyrillic-wght-normal.woff2?url';
import serifGreek from '@fontsource-variable/literata/files/literata-greek-wght-normal.woff2?url';

import { keptFile } from '$lib/data/media.ts';

const LATIN =
  'U+0000-00FF,U+0131,U+0152-0153,U+02BB-02BC,U+02C6,U+02DA,U+02DC,U+0304,U+0308,U+0329,U+2000-206F,U+20AC,U+2122,U+2191,U+2193,U+2212,U+2215,U+FEFF,U+FFFD';
const LATIN_EXT =
  'U+0100-02BA,U+02BD-02C5,U+02C7-02CC,U+02CE-02D7,U+02DD-02FF,U+0304,U+0308,U+0329,U+1D00-1DBF,U+1E00-1E9F,U+1EF2-1EFF,U+2020,U+20A0-20AB,U+20AD-20C0,U+2113,U+2C60-2C7F,U+A720-A7FF';
const CYRILLIC = 'U+0301,U+0400-045F,U+0490-0491,U+04B0-04B1,U+2116';
const GREEK = 'U+0370-0377,U+037A-037F,U+0384-038A,U+038C,U+038E-03A1,U+03A3-03FF';

const SANS = 'Atkinson Hyperlegible Next Variable';
const SERIF = 'Literata Variable';
const MONO = 'JetBrains Mono Variable';
const FACES: readonly [family: string, url: string, unicodeRange: string][] = [
  ...([
    [SANS, sansLatin, LATIN],
    [SANS, sansLatinExt, LATIN_EXT]
  ] as [string, string, string][]),
  ...([
    [SERIF, serifLatin, LATIN],
    [SERIF, serifLatinExt, LATIN_EXT]
  ] as [string, string, string][]),
  ...([
    [SERIF, serifCyrillic, CYRILLIC],
    [SERIF, serifGreek, GREEK]
  ] as [string, string, string][]),
  ...([
    [MONO, monoLatin, LATIN],
    [MONO, monoLatinExt, LATIN_EXT]
  ] as [string, string, string][]),
  ...([
    [MONO, monoCyrillic, CYRILLIC],
    [MONO, monoGreek, GREEK]
  ] as [string, string, string][])
];

let loading: Promise<void> | null = null;

/**
 * Loads the typefaces of the cards into a worker, which has no style sheets of its own. All of
 * them, before anything is measured: a font that comes late would change every line.
 */
export function loadWorkerFonts(fonts: FontFaceSet): Promise<void> {
  loading ??= Promise.all(
    FACES.map(async ([family, url, unicodeRange]) => {
      const face = new FontFace(family, `url(${url})`, { weight: '200 900', unicodeRange });
      fonts.add(await face.load());
    })
  ).then(() => {});
  return loading;
}

/** The same on a page, whose style sheets name them: they are loaded for what is to be painted. */
export async function loadPageFonts(text: string): Promise<void> {
  await Promise.all(
    [SANS, SERIF, MONO].flatMap((family) =>
      [500, 700].map((weight) => document.fonts.load(`${weight} 40px "${family}"`, text))
    )
  );
}

const own = new Map<string, Promise<void>>();

/**
 * Loads a font file of the user's own, once, under the name by which it is kept.
 * @param fonts of the page or the worker
 */
export function loadOwnFont(fonts: FontFaceSet, name: string): Promise<void> {
  let loading = own.get(name);
  if (!loading) {
    loading = keptFile(name).then(async (blob) => {
      // A font that is gone gives way to the shipped one behind it.
      if (blob) fonts.add(await new FontFace(name, await blob.arrayBuffer()).load());
    });
    own.set(name, loading);
    loading.catch(() => own.delete(name));
  }
  return loading;
}
