import {
  glossaryEntrySchema,
  memoryId,
  remember,
  type GlossaryEntry,
  type LinkMemory
} from '$lib/core/links/glossary.ts';
import { db } from './db.ts';

/** By their first word. */
export const allGlossary = async (): Promise<GlossaryEntry[]> =>
  (await db.glossary.toArray()).sort((a, b) => (a.words[0] ?? '').localeCompare(b.words[0] ?? ''));

export const saveGlossaryEntry = (entry: GlossaryEntry): Promise<unknown> =>
  db.glossary.put(glossaryEntrySchema.parse(entry));

export const removeGlossaryEntry = (id: string): Promise<void> => db.glossary.delete(id);

export const allLinkMemories = (): Promise<LinkMemory[]> => db.linkMemories.toArray();

/** Remembers in which sentences words were linked, or were not to be. */
export function rememberLinks(
  decided: readonly { word: string; url: string; sentence: string; isLinked: boolean }[],
  now: string
): Promise<void> {
  return db.transaction('rw', db.linkMemories, async () => {
    for (const one of decided) {
      const known = await db.linkMemories.get(memoryId(one.word, one.url));
      await db.linkMemories.put(remember(known, one, now));
    }
  });
}
