/**
 * Learns where editors begin a chapter, from the talks beside this script (written for this project):
 * `node --import tsx bin/train/turns.ts`, about half a minute. Writes
 * src/lib/core/chapters/turns.weights.json.
 */
import { writeFileSync } from 'node:fs';
import { pathToFileURL } from 'node:url';
import { pointOf } from '../../src/lib/core/chapters/topicSpace.ts';
import { turnFeatures } from '../../src/lib/core/chapters/turnFeatures.ts';
import type { SentenceWeights } from '../../src/lib/core/text/sentenceModel.ts';
import { readTalk } from '../../src/lib/core/text/talk.ts';
import type { Scorer } from '../../src/lib/core/text/scorer.ts';
import { learnLogistic, type Example } from './logistic.ts';
import {
  captionsAs,
  furtherTalks,
  labelledTalks,
  type CaptionKind,
  type LabelledTalk
} from './speech.ts';

/** Each talk is read as edited captions and as two kinds of automatic ones. */
const KINDS: readonly CaptionKind[] = ['clean', 'words', 'even'];
/** Seconds within which a sentence may begin that opens a chapter. */
const NEAR = 6;

/** The sentence starts of a talk, each with whether an editor begins a chapter there. */
export function turnsOf(labelled: LabelledTalk, sentenceModel?: SentenceWeights): Example[] {
  return KINDS.flatMap((kind) => {
    const talk = readTalk(captionsAs(labelled, kind), { sentenceModel });
    const turns = new Set(
      labelled.chapters.slice(1).map(({ start }) => {
        let [best, least] = [-1, NEAR];
        for (const [i, sentence] of talk.sentences.entries()) {
          const off = Math.abs(sentence.start - start);
          if (off < least) [best, least] = [i, off];
        }
        return best;
      })
    );
    const points = talk.sentences.map(({ from, to }) =>
      pointOf(talk.plain.slice(from, to).filter(Boolean))
    );
    return turnFeatures(talk, points)
      .map((features, i) => ({ features, target: turns.has(i) ? 1 : 0, group: labelled.name }))
      .slice(1);
  });
}

/** Log-odds of a chapter beginning with a sentence. */
export const learnTurns = (examples: readonly Example[]): Scorer =>
  learnLogistic(examples, { groups: 8, decay: 0.002, rate: 0.01 });

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const scorer = learnTurns(
    [...labelledTalks(), ...furtherTalks()].flatMap((talk) => turnsOf(talk))
  );
  writeFileSync('src/lib/core/chapters/turns.weights.json', `${JSON.stringify(scorer)}\n`);
}
