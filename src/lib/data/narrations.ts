import {
  narrationSchema,
  renderSchema,
  type Narration,
  type Render
} from '$lib/core/narration/narration.ts';
import { type VideoLook } from '$lib/core/narration/look.ts';
import type { LaneLook } from '$lib/core/lanes/lane.ts';
import { styleSchema } from '$lib/core/narration/styles.ts';
import { db } from './db.ts';

export async function readNarration(id: string): Promise<Narration | null> {
  const kept = await db.narrations.get(id);
  return kept ? (narrationSchema.safeParse(kept).data ?? null) : null;
}

/** What the booth begins with: that of the last narration. */
export type BoothDefaults = Partial<
  Pick<Narration, 'voice' | 'before' | 'after' | 'details' | 'options' | keyof VideoLook>
>;
const DEFAULTS = 'booth';

export const readBoothDefaults = async (): Promise<BoothDefaults> =>
  ((await db.settings.get(DEFAULTS))?.value ?? {}) as BoothDefaults;

/** The look and the voice that the next narration would begin with. */
export async function readLookOfBooth(): Promise<LaneLook> {
  const usual = await readBoothDefaults();
  return {
    frame: usual.frame ?? 'wide',
    resolution: usual.resolution ?? '720p',
    style: usual.style ?? styleSchema.parse({}),
    format: usual.format ?? 'webm',
    voice: usual.voice ?? null
  };
}

/** Keeps what `merge` makes of what is kept, and what the next one begins with, in one transaction. */
export async function updateNarration(
  id: string,
  merge: (stored: Narration | null) => Narration
): Promise<void> {
  await db.transaction('rw', db.narrations, db.settings, async () => {
    const narration = narrationSchema.parse(merge(await readNarration(id)));
    const { voice, frame, resolution, style, before, after, format, details, options } = narration;
    const value = { voice, frame, resolution, style, before, after, format, details, options };
    await db.narrations.put(narration);
    await db.settings.put({ name: DEFAULTS, value });
  });
}

export async function readRender(id: string): Promise<Render | null> {
  const kept = await db.renders.get(id);
  return kept ? (renderSchema.safeParse(kept).data ?? null) : null;
}

export const saveRender = (render: Render): Promise<string> =>
  db.renders.put(renderSchema.parse(render));

export const removeRender = (id: string): Promise<void> => db.renders.delete(id);
