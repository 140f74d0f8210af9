/**
 * Learns which words of a part an editor's title for it has, from the talks beside this script
 * (written for this project): `node --import tsx bin/train/titles.ts`, about a minute. Writes
 * src/lib/core/chapters/titles.weights.json.
 */
import { writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { countTerms, termFeatures } from '../../src/lib/core/chapters/termFeatures.ts';
import { readTalk, type Talk } from '../../src/lib/core/text/talk.ts';
import { contentStems, wordsOf } from '../../src/lib/core/text/terms.ts';
import type { Scorer } from '../../src/lib/core/text/scorer.ts';
import { learnLogistic, type Example } from './logistic.ts';
import { captionsAs, furtherTalks, labelledTalks, type LabelledTalk } from './speech.ts';

/** Index of the sentence with which each of the editor's chapters begins. */
export const editorStarts = (labelled: LabelledTalk, talk: Talk): number[] =>
  labelled.chapters.map(({ start }, k) =>
    k === 0
      ? 0
      : Math.max(
          0,
          talk.sentences.findIndex((s) => s.start >= start - 0.5)
        )
  );

export const titleStems = (title: string, talk: Talk): Set<string> =>
  new Set(contentStems(wordsOf(title), talk.language));

/** The words of the editor's parts, each with whether the editor's title has it. */
export function termsOf(labelled: LabelledTalk): Example[] {
  const talk = readTalk(captionsAs(labelled, 'clean'));
  const starts = editorStarts(labelled, talk);
  const parts = starts.map((from, k) => ({ from, to: starts[k + 1] ?? talk.sentences.length }));
  const counts = countTerms(talk, parts);
  return parts.flatMap((_, k) => {
    const wanted = titleStems(labelled.chapters[k]?.title ?? '', talk);
    return [...termFeatures(talk, parts, k, counts)].map(([stem, features]) => ({
      features,
      target: wanted.has(stem) ? 1 : 0,
      group: labelled.name
    }));
  });
}

/** Log-odds of a word of a part being in its title. */
export const learnTitles = (examples: readonly Example[]): Scorer =>
  learnLogistic(examples, { groups: 5, decay: 0.002, rate: 0.03 });

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const scorer = learnTitles(
    [...labelledTalks(), ...furtherTalks()].flatMap((talk) => termsOf(talk))
  );
  writeFileSync('src/lib/core/chapters/titles.weights.json', `${JSON.stringify(scorer)}\n`);
}
