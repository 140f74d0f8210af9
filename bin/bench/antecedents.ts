/**
 * Whether what a pronoun of the article stands for stands before it in the article. Fifty sentences of
 * each of six talks were read by hand before this was first run: for each that leans on another,
 * `antecedents.json` lists those of which one must stand before it. None is listed where what it stands
 * for is only seen.
 */
import antecedents from './antecedents.json' with { type: 'json' };

const TALKS: Readonly<Record<string, Readonly<Record<string, readonly number[]>>>> =
  antecedents.talks;

/**
 * @param said for each sentence of the body, in order, the sentences truly said that are in it
 * @returns how many of them were read by hand, and which of those lack what they lean on
 */
export function withoutAntecedent(
  talk: string,
  said: readonly (readonly number[])[]
): { read: number; lacking: number[] } | null {
  const leans = TALKS[talk];
  if (!leans) return null;
  const stands = new Set<number>();
  let read = 0;
  const lacking: number[] = [];
  for (const ids of said) {
    for (const id of ids) {
      const isRead = id >= antecedents.from && id <= antecedents.to;
      const needed = leans[id];
      if (isRead) read++;
      if (isRead && needed && !needed.some((n) => stands.has(n))) lacking.push(id);
      stands.add(id);
    }
  }
  return { read, lacking };
}
