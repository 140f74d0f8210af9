/** Sentences of a text, with the characters they take. */
export function sentencesIn(text: string): { text: string; from: number; to: number }[] {
  const found: { text: string; from: number; to: number }[] = [];
  const pattern =
    /[^.!?…\s](?:[^.!?…]|[.](?=[^\s"”’)])|[.!?…](?=["”’)]*\s*\p{Ll}))*[.!?…]*["”’)]*/gsu;
  for (const match of text.matchAll(pattern)) {
    found.push({ text: match[0], from: match.index, to: match.index + match[0].length });
  }
  return found;
}
