const BOMS: [number[], string][] = [
  [[0xef, 0xbb, 0xbf], 'utf-8'],
  [[0xfe, 0xff], 'utf-16be'],
  [[0xff, 0xfe], 'utf-16le']
];

/**
 * Bytes from outside as text. A byte order mark wins, then the Content-Type, then what the
 * document itself declares. A label that is unknown or does not fit falls back to UTF-8, then to
 * Windows-1252, which can read anything.
 */
export function decodeText(bytes: Uint8Array, contentType = ''): string {
  const mark = BOMS.find(([bom]) => bom.every((byte, i) => bytes[i] === byte))?.[1];
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 1024));
  const declared =
    mark ??
    /charset\s*=\s*"?([\w-]+)/i.exec(contentType)?.[1] ??
    /<\?xml[^>]*encoding\s*=\s*["']([\w-]+)/i.exec(head)?.[1] ??
    /<meta[^>]*charset\s*=\s*["']?([\w-]+)/i.exec(head)?.[1] ??
    'utf-8';
  for (const label of [declared, 'utf-8']) {
    const text = decodeStrictly(bytes, label);
    if (text !== null) return text;
  }
  return windows1252(bytes);
}

const C1 =
  '\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f' +
  '\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178';

/** Node 20 decodes this label as Latin 1, without the quotation marks and dashes of 0x80 to 0x9f. */
function windows1252(bytes: Uint8Array): string {
  const latin1 = new TextDecoder('latin1').decode(bytes);
  return latin1.replace(/[\u0080-\u009f]/g, (c) => C1[c.charCodeAt(0) - 0x80] ?? c);
}

function decodeStrictly(bytes: Uint8Array, label: string): string | null {
  try {
    const decoder = new TextDecoder(label, { fatal: true });
    return decoder.encoding === 'windows-1252' ? windows1252(bytes) : decoder.decode(bytes);
  } catch {
    return null;
  }
}
