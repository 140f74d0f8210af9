import { GERMAN_POST } from './de/post.ts';
import { ENGLISH_POST } from './en/post.ts';
import type { PostWords } from './postWords.ts';

/** What layouts say of their own accord, by language. */
export const POST_WORDS: Record<string, PostWords> = { en: ENGLISH_POST, de: GERMAN_POST };

/** Of one language (BCP 47), or undefined. */
export const postWords = (language: string): PostWords | undefined =>
  POST_WORDS[language.toLowerCase().split('-')[0] ?? ''];
