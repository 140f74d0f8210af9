import { z } from 'zod';
import { appeal, attention } from '../audience/model.ts';

/** What stands at a network. Times are milliseconds since 1970. */
export const updateSchema = z.object({
  id: z.string(),
  /** Path of the network. */
  network: z.string(),
  /** What its sender calls it. */
  context: z.string(),
  type: z.enum(['Note', 'Question']),
  title: z.string(),
  text: z.string(),
  tags: z.array(z.string()),
  picture: z.object({ url: z.string(), alt: z.string() }).nullable(),
  clip: z.object({ url: z.string(), alt: z.string() }).nullable().default(null),
  /** Address of the update that it goes on from; empty where it stands for itself. */
  inReplyTo: z.string().default(''),
  button: z.object({ label: z.string(), url: z.string() }).nullable(),
  options: z.array(z.object({ name: z.string(), isRight: z.boolean() })),
  /** Shown to those who have answered. */
  why: z.string(),
  closes: z.number().nullable(),
  created: z.number(),
  updated: z.number(),
  /** Since when its answers are counted, where they were counted anew. */
  countedFrom: z.number().optional()
});
export type Update = z.infer<typeof updateSchema>;

const isQuiz = (update: Update): boolean => update.options.some((o) => o.isRight);

/** A number between 0 and 1 that is always the same for the same words. */
function fixed(words: string): number {
  let h = 7;
  for (const char of words) h = (h * 31 + char.charCodeAt(0)) % 9973;
  return h / 9973;
}

const HOUR = 3_600_000;

/**
 * How many have chosen each option by now: many at first, fewer later, none once it is closed. More
 * than half of those who answer a quiz find the right answer.
 */
export function votesOf(update: Update, now: number): number[] {
  const from = update.countedFrom ?? update.created;
  const hours = Math.max(0, Math.min(now, update.closes ?? Infinity) - from) / HOUR;
  const voters = Math.floor((14 + 40 * fixed(update.id)) * Math.log2(1 + hours / 2));
  const weights = update.options.map((option, i) =>
    isQuiz(update) && option.isRight ? 2.2 : 0.25 + fixed(`${update.id}/${i}/${option.name}`)
  );
  const sum = weights.reduce((total, w) => total + w, 0) || 1;
  return weights.map((w) => Math.floor((voters * w) / sum));
}

/** How often a hashtag is used at a network: a fixed figure, none for what nobody would look for. */
export function usesOf(network: string, tag: string): number {
  const share = fixed(`${network}#${tag.toLowerCase()}`);
  return tag.length > 16 ? Math.floor(share * 6) : Math.floor(20_000 * share ** 5);
}

/** Likes, shares and replies by now, as collections. */
function reactionsTo(update: Update, now: number): object {
  const days = Math.max(0, now - update.created) / (24 * HOUR);
  const form = update.options.length > 0 ? 1.6 : update.picture || update.clip ? 1.25 : 1;
  // Half of what ever comes of it comes within half a day.
  const most = 24 * form * appeal(update.id) * attention(update.created);
  const reached = most * (days / (days + 0.5));
  const collection = (share: number) => ({
    type: 'Collection',
    totalItems: Math.floor(reached * share)
  });
  return { likes: collection(1), shares: collection(0.2), replies: collection(0.12) };
}

/** An update as ActivityStreams 2.0 has it. */
export function asObject(update: Update, base: string, now: number): object {
  const votes = votesOf(update, now);
  const isClosed = update.closes !== null && update.closes <= now;
  return {
    '@context': [
      'https://www.w3.org/ns/activitystreams',
      { isRight: 'urn:x-rehearsal:quiz#isRight', Hashtag: 'as:Hashtag' }
    ],
    id: `${base}objects/${update.id}`,
    url: `${base}updates/${update.id}`,
    type: update.type,
    attributedTo: `${base}actor`,
    context: update.context,
    ...(update.inReplyTo && { inReplyTo: update.inReplyTo }),
    ...(update.title && { name: update.title }),
    content: update.text,
    mediaType: 'text/plain',
    published: new Date(update.created).toISOString(),
    updated: new Date(update.updated).toISOString(),
    ...reactionsTo(update, now),
    tag: update.tags.map((name) => ({ type: 'Hashtag', name })),
    attachment: [
      ...(update.picture
        ? [{ type: 'Image', url: update.picture.url, name: update.picture.alt }]
        : []),
      ...(update.clip ? [{ type: 'Video', url: update.clip.url, name: update.clip.alt }] : []),
      ...(update.button
        ? [{ type: 'Link', href: update.button.url, name: update.button.label }]
        : [])
    ],
    ...(update.type === 'Question' && {
      oneOf: update.options.map(({ name, isRight }, i) => ({
        type: 'Note',
        name,
        replies: { type: 'Collection', totalItems: votes[i] },
        ...(isRight && { isRight })
      })),
      ...(update.why && { summary: update.why }),
      ...(update.closes !== null && { endTime: new Date(update.closes).toISOString() }),
      ...(isClosed && { closed: new Date(update.closes!).toISOString() })
    })
  };
}
