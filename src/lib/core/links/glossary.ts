import { z } from 'zod';

/** A word, and the address that posts link it to. */
export const glossaryEntrySchema = z.object({
  id: z.string(),
  /** Ways in which it is written; inflections of its language need not be named. */
  words: z.array(z.string()).min(1),
  url: z.string(),
  /** What it means, in a few words: it is told apart from other meanings by them. */
  about: z.string(),
  /** Somebody pays for the link: posts say so. */
  isPaid: z.boolean(),
  /** ISO 8601. */
  changed: z.string()
});
export type GlossaryEntry = z.infer<typeof glossaryEntrySchema>;

/** What the user decided of a word: sentences in which it was linked, and in which it was not. */
export const linkMemorySchema = z.object({
  /** `memoryId` of the word and the address. */
  id: z.string(),
  linked: z.array(z.string()),
  declined: z.array(z.string()),
  changed: z.string()
});
export type LinkMemory = z.infer<typeof linkMemorySchema>;

export const memoryId = (word: string, url: string): string => `${word.toLowerCase()} ${url}`;

/** Sentences that are remembered of each kind. */
const MOST = 20;

/** The memory with one more decision in it. @param now ISO 8601 */
export function remember(
  known: LinkMemory | undefined,
  of: { word: string; url: string; sentence: string; isLinked: boolean },
  now: string
): LinkMemory {
  const { word, url, sentence, isLinked } = of;
  const without = (sentences: readonly string[] = []) => sentences.filter((s) => s !== sentence);
  const [linked, declined] = [without(known?.linked), without(known?.declined)];
  (isLinked ? linked : declined).push(sentence);
  return {
    id: memoryId(word, url),
    linked: linked.slice(-MOST),
    declined: declined.slice(-MOST),
    changed: now
  };
}
