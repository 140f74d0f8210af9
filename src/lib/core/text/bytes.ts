/** Bytes, with a sign, from base64. */
export function bytesOf(base64: string): Int8Array {
  const text = atob(base64);
  const bytes = new Int8Array(text.length);
  for (let i = 0; i < text.length; i++) bytes[i] = text.charCodeAt(i);
  return bytes;
}

/** Numbers of two bytes each, with a sign, the low byte first, from base64. */
export function shortsOf(base64: string): Int16Array {
  const bytes = bytesOf(base64);
  const numbers = new Int16Array(bytes.length >> 1);
  for (let i = 0; i < numbers.length; i++) {
    numbers[i] = ((bytes[2 * i + 1] as number) << 8) | ((bytes[2 * i] as number) & 255);
  }
  return numbers;
}
