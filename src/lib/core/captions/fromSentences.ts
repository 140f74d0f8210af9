import type { Talk } from '../text/talk.ts';
import type { Cue } from './cue.ts';

/** Characters in a line of a caption, and lines in one. */
const LINE = 42;
const LINES = 2;

/** Sentences as captions of at most two lines of 42 characters, each cue within one sentence. */
export function cuesFromSentences({ sentences, words }: Pick<Talk, 'sentences' | 'words'>): Cue[] {
  return sentences.flatMap((sentence) => {
    const texts = sentence.text.split(' ');
    const cues: Cue[] = [];
    for (let first = 0; first < texts.length;) {
      const lines: string[] = [''];
      let next = first;
      while (next < texts.length) {
        const word = texts[next] ?? '';
        const line = lines.at(-1) ?? '';
        if (!line || line.length + 1 + word.length <= LINE) {
          lines[lines.length - 1] = line ? `${line} ${word}` : word;
        } else if (lines.length < LINES) lines.push(word);
        else break;
        next++;
      }
      // A mark that stands alone is a text but no word, so the count may be off by a few.
      const at = (k: number) =>
        words[
          Math.min(sentence.to - 1, sentence.from + Math.min(k, sentence.to - sentence.from - 1))
        ];
      cues.push({
        start: at(first)?.start ?? sentence.start,
        end: Math.max(at(next - 1)?.end ?? sentence.end, at(first)?.start ?? 0),
        text: lines.join('\n')
      });
      first = next;
    }
    return cues;
  });
}
