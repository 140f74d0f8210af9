import slugify from '@sindresorhus/slugify';

const MOST = 80;

/** An address from a title: lower case, words joined by hyphens, at most 80 characters; any script. */
export const slugOf = (text: string): string =>
  slugify(
    text.normalize('NFKD').replace(/\p{M}/gu, '').replaceAll('ß', 'ss').replace(/['’]/g, ''),
    {
      decamelize: false,
      transliterate: false,
      customReplacements: []
    }
  )
    .slice(0, MOST)
    .replace(/(?<!-)-+$/, '');
