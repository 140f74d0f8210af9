import {
  narrationSchema,
  renderSchema,
  type Narration,
  type Render
} from '$lib/core/narration/narration.ts';
import { db } from './db.ts';

export async function readNarration(id: string): Promise<Narration | null> {
  const kept = await db.narrations.get(id);
  return kept ? (narrationSchema.safeParse(kept).data ?? null) : null;
}

export async function saveNarration(narration: Narration): Promise<void> {
  await db.narrations.put(narrationSchema.parse(narration));
}

export async function removeNarration(id: string): Promise<void> {
  await db.narrations.delete(id);
  await db.renders.delete(id);
}

export const readRender = async (id: string): Promise<Render | null> =>
  (await db.renders.get(id)) ?? null;

export const saveRender = (render: Render): Promise<string> =>
  db.renders.put(renderSchema.parse(render));
