import { POST_WORDS, postWords } from '../../lang/post.ts';
import type { PostWords } from '../../lang/postWords.ts';

/** Headings that layouts of before began with. */
const FORMER: Record<string, keyof PostWords['headings']> = {
  'What is said, word for word': 'transcript'
};

interface Worded {
  kind: string;
  heading: string;
  text: string;
}

/**
 * A block of a layout in the language of the video, where its words are those that layouts begin
 * with. What the user wrote stays as it is.
 * @param language of the video (BCP 47)
 */
export function inLanguage<B extends Worded>(block: B, language: string): B {
  const words = postWords(language);
  if (!words) return block;
  const all = Object.values(POST_WORDS);
  const heading = (Object.keys(words.headings) as (keyof PostWords['headings'])[]).find((name) =>
    all.some((w) => w.headings[name] === block.heading)
  );
  const former = FORMER[block.heading];
  const text = (['credit', 'closing'] as const).find(
    (name) => block.kind === name && all.some((w) => w[name] === block.text)
  );
  const named = heading ?? former;
  return {
    ...block,
    ...(named && { heading: words.headings[named] }),
    ...(text && { text: words[text] })
  };
}
