/** Where a line may be parted, the best first. */
const BREAKS = [/(?<=[.!?…]["”’)]?) /g, /(?<=[;:]) /g, /(?<=[,–—]) /g, / /g];
/** A half has at least this share of the letters, where a better break allows it. */
const LEAST = 0.2;

/**
 * Parts a line in two, near its middle and where a reader would pause.
 * @returns null where there is but one word
 */
export function splitLine(text: string): [string, string] | null {
  const line = text.trim().replace(/\s+/g, ' ');
  const isFair = (at: number) => at >= line.length * LEAST && at <= line.length * (1 - LEAST);
  const nearest = (places: number[]) =>
    places.sort((a, b) => Math.abs(a - line.length / 2) - Math.abs(b - line.length / 2))[0];
  let any: number | undefined;
  for (const pattern of BREAKS) {
    const places = [...line.matchAll(pattern)].map((match) => match.index);
    any ??= nearest([...places]);
    const at = nearest(places.filter(isFair));
    if (at !== undefined) return [line.slice(0, at), line.slice(at + 1)];
  }
  return any === undefined ? null : [line.slice(0, any), line.slice(any + 1)];
}
