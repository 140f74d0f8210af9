import type { ReadCaptions } from '../captions/read.ts';
import { tidyCaptions, type Mending } from '../captions/tidy.ts';
import { DROP_NOISE, type TidyOptions } from '../captions/tidyOptions.ts';
import { type SpokenWord } from '../captions/words.ts';
import { bare } from './bare.ts';
import { detectLanguage, languageOf, type Language } from './language.ts';
import type { SentenceWeights } from './sentenceModel.ts';
import { toSentences, type Sentence } from './sentences.ts';
import { tagWords } from './tag.ts';
import { contentStems } from './terms.ts';

/** What is said in a video, ready to be worked on. */
export interface Talk {
  language: Language;
  words: SpokenWord[];
  /** Each word in lower case without its punctuation. */
  plain: string[];
  /** Part of speech of each word, in English; else empty. */
  tags: string[];
  sentences: Sentence[];
  /** Stems of the content words of each sentence. */
  stems: string[][];
  /** Whether sentence ends were restored, the captions having none. */
  isRestored: boolean;
  /** False when the captions had no times and an average pace was taken. */
  isTimed: boolean;
  mended: Mending[];
}

export interface TalkOptions {
  tidy?: TidyOptions;
  /** BCP 47, where it is known; else it is detected. */
  language?: string;
  /** What finds the ends of English sentences; the one that ships, where none is given. */
  sentenceModel?: SentenceWeights;
}

/** From captions to sentences with their seconds. */
export function readTalk(captions: ReadCaptions, options: TalkOptions = {}): Talk {
  const spoken = tidyCaptions(captions, options.tidy ?? DROP_NOISE);
  const shown = spoken.words.map((word) => word.text).join(' ');
  const detected = detectLanguage(shown);
  const code = detected === 'und' ? (options.language ?? 'und') : detected;
  const language = languageOf(code);
  const { sentences, words, isRestored } = toSentences(
    spoken,
    language.code,
    options.sentenceModel
  );
  const plain = words.map((word) => bare(word.text));
  return {
    language,
    words,
    plain,
    tags: language.code === 'en' ? tagWords(plain.map((word) => word || '.')) : [],
    sentences,
    stems: sentences.map(({ from, to }) => contentStems(plain.slice(from, to), language)),
    isRestored,
    isTimed: captions.isTimed,
    mended: spoken.mended
  };
}
