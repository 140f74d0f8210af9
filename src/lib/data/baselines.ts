import {
  baselineSchema,
  makingSchema,
  makingTextSchema,
  type Baseline,
  type Making,
  type MakingText
} from '$lib/core/model/baseline.ts';
import { isPost } from '$lib/core/delivery/payload.ts';
import { db } from './db.ts';

export const getBaseline = (id: string): Promise<Baseline | undefined> => db.baselines.get(id);

export const putBaselines = (rows: readonly Baseline[]): Promise<unknown> =>
  db.baselines.bulkPut(rows.map((row) => baselineSchema.parse(row)));

/** Those of a post: its video, or videos that are gone. */
export const baselinesOfPost = async (post: string): Promise<Baseline[]> =>
  db.baselines.filter((row) => row.post === post).toArray();

/** Makes baselines what they were before; those that were not there are taken out. */
export const restoreBaselines = (
  ids: readonly string[],
  before: readonly Baseline[]
): Promise<void> =>
  db.transaction('rw', db.baselines, async () => {
    await db.baselines.bulkDelete([...ids]);
    await db.baselines.bulkPut([...before]);
  });

/** Keeps what a post was made from; what was kept for it and never went out is forgotten. */
export const keepMaking = (making: Making, text: Omit<MakingText, 'id'>): Promise<void> =>
  db.transaction('rw', db.makings, db.makingTexts, db.outbox, async () => {
    const { id, key } = making;
    const entry = await db.outbox.get(key);
    const payloads = entry ? [entry.payload, entry.sent, entry.sentBefore] : [];
    const used = new Set(payloads.map((p) => (p && isPost(p) ? p.making : undefined)));
    const ids = await db.makings.where({ key }).primaryKeys();
    const unused = ids.filter((known) => !used.has(known));
    await db.makings.bulkDelete(unused);
    await db.makingTexts.bulkDelete(unused);
    await db.makings.put(makingSchema.parse(making));
    await db.makingTexts.put(makingTextSchema.parse({ ...text, id }));
  });

export const getMakingText = (id: string): Promise<MakingText | undefined> =>
  db.makingTexts.get(id);
