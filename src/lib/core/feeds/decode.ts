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
  return new TextDecoder('windows-1252').decode(bytes);
}

function decodeStrictly(bytes: Uint8Array, label: string): string | null {
  try {
    return new TextDecoder(label, { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}
