import type { OwnVoice } from '$lib/core/narration/voices.ts';
import { db } from './db.ts';

/** The name of the file in which the network of a voice lies. */
export const modelFile = (id: string): string => `voice-${id}.onnx`;

export const getOwnVoice = async (id: string): Promise<OwnVoice | null> =>
  (await db.voices.get(id)) ?? null;
export const ownVoices = (): Promise<OwnVoice[]> => db.voices.toArray();
export const saveOwnVoice = (voice: OwnVoice): Promise<unknown> => db.voices.put(voice);
export const removeOwnVoice = (id: string): Promise<void> => db.voices.delete(id);
