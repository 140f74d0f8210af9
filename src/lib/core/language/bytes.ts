/** Bytes, with a sign, from base64. */
export const bytesOf = (base64: string): Int8Array =>
  Int8Array.from(atob(base64), (c) => (c.charCodeAt(0) << 24) >> 24);

/** Numbers of two bytes each, with a sign, the low byte first, from base64. */
export function shortsOf(base64: string): Int16Array {
  const bytes = bytesOf(base64);
  return Int16Array.from({ length: bytes.length >> 1 }, (_, i) => {
    return ((bytes[2 * i + 1] ?? 0) << 8) | ((bytes[2 * i] ?? 0) & 255);
  });
}
