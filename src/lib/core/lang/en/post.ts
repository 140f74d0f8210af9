import type { PostWords } from '../postWords.ts';

export const ENGLISH_POST: PostWords = {
  headings: { takeaways: 'In short', chapters: 'In this video', transcript: 'Transcript' },
  credit: 'Video by {{ video.author }} ({{ video.licence }}): {{ video.url }}',
  closing: '{Watch it on the channel|See it on the channel}: {{ video.url }}',
  gone: 'The video that was here is no longer available.',
  paid: 'paid link'
};
