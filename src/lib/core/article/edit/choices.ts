import { z } from 'zod';

/** What the user wants of a sentence, whatever it says: `at` is a second in which it is said. */
export const sentenceChoiceSchema = z.object({
  at: z.number(),
  choice: z.enum(['keep', 'drop'])
});
export type SentenceChoice = z.infer<typeof sentenceChoiceSchema>;

/** The choices by the sentence that is said at their second; of two for one sentence the later counts. */
export function choicesOf(
  talk: { sentences: readonly { start: number; end: number }[] },
  choices: readonly SentenceChoice[]
): Map<number, SentenceChoice['choice']> {
  const found = new Map<number, SentenceChoice['choice']>();
  for (const { at, choice } of choices) {
    const index = talk.sentences.findIndex((s) => s.start <= at && at < s.end);
    if (index >= 0) found.set(index, choice);
  }
  return found;
}

/** The choices with another for one sentence, or with none for it. */
export function withChoice(
  choices: readonly SentenceChoice[],
  sentence: { start: number; end: number },
  choice: SentenceChoice['choice'] | null
): SentenceChoice[] {
  const others = choices.filter(({ at }) => at < sentence.start || at >= sentence.end);
  return choice ? [...others, { at: (sentence.start + sentence.end) / 2, choice }] : others;
}
