/** Bytes to be written over, or behind, what a file has at a position. */
export interface Patch {
  at: number;
  bytes: Uint8Array<ArrayBuffer>;
}

export function concatenated(pieces: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  const whole = new Uint8Array(pieces.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const piece of pieces) {
    whole.set(piece, at);
    at += piece.length;
  }
  return whole;
}

/** A whole number below 2^53, its highest byte first. */
export function bigEndian(value: number, length: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(length);
  let rest = value;
  for (let i = length - 1; i >= 0; i--) {
    bytes[i] = rest % 256;
    rest = Math.floor(rest / 256);
  }
  return bytes;
}

/** Where bytes stand in others, or -1. */
export function indexOfBytes(whole: Uint8Array, wanted: readonly number[]): number {
  for (let at = 0; at + wanted.length <= whole.length; at++)
    if (wanted.every((byte, i) => whole[at + i] === byte)) return at;
  return -1;
}
