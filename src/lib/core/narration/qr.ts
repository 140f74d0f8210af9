import { encode } from 'uqr';

/** The cells of a QR code, true being dark, without the quiet zone. Empty where the text is too long for one. */
export function qrRows(text: string): boolean[][] {
  try {
    return encode(text, { ecc: 'M', border: 0 }).data;
  } catch {
    return [];
  }
}
