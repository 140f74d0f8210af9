import { z } from 'zod';
import type { Item } from '../model/item.ts';

const count = z.number().int().nonnegative();

/** What is counted of an item at its place. Watch time is in seconds. */
export const COUNTERS = [
  'views',
  'visits',
  'likes',
  'comments',
  'shares',
  'votes',
  'ratings',
  'watchTime'
] as const;
export const counterSchema = z.enum(COUNTERS);
export type Counter = z.infer<typeof counterSchema>;

/** Totals so far, of those counters that are told. */
export const figuresSchema = z.partialRecord(counterSchema, count);
export type Figures = z.infer<typeof figuresSchema>;

/** What the place of an item tells of it (Media RSS statistics and star rating, RFC 4685 counts). */
export function figuresOfItem({ views, likes, rating, replies }: Item): Figures {
  return {
    ...(views !== undefined && { views }),
    ...(likes !== undefined && { likes }),
    ...(rating && { ratings: rating.count }),
    ...(replies?.count !== null && replies !== undefined && { comments: replies.count })
  };
}
