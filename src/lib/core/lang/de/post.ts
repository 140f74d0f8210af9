import type { PostWords } from '../postWords.ts';

export const GERMAN_POST: PostWords = {
  headings: { takeaways: 'Kurz gesagt', chapters: 'In diesem Video', transcript: 'Transkript' },
  credit: 'Video von {{ video.author }} ({{ video.licence }}): {{ video.url }}',
  closing: '{Das Video auf dem Kanal|Auf dem Kanal ansehen}: {{ video.url }}',
  gone: 'Das Video, das hier stand, ist nicht mehr verfügbar.',
  paid: 'bezahlter Link'
};
