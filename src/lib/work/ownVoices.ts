import { v4 } from 'uuid';
import type { VoiceFileProblem } from '$lib/core/narration/voiceFile.ts';
import type { OwnVoice } from '$lib/core/narration/voices.ts';
import { modelFile, removeOwnVoice, saveOwnVoice } from '$lib/data/ownVoices.ts';
import { removeFiles, writeWhole } from '$lib/video/files.ts';
import { voiceWorker } from '$lib/workers/voice.ts';
import { runTask } from './tasks.svelte.ts';

/** Longest text on a voice that is kept. */
const LONGEST_CARD = 20_000;

/** Takes a voice in ONNX form with its JSON file, and what text comes with them on its licence. */
export function importVoice(
  files: readonly File[]
): Promise<{ voice: OwnVoice; problem: null } | { voice: null; problem: VoiceFileProblem }> {
  const ending = (name: string) => files.find((f) => f.name.toLowerCase().endsWith(name));
  const [model, settings] = [ending('.onnx'), ending('.json')];
  const name = (model ?? settings)?.name.replace(/(\.onnx)?(\.json)?$/i, '') ?? '';
  return runTask(`Reading the voice “${name}”`, async () => {
    if (!model) return { voice: null, problem: 'no-model' };
    if (!settings) return { voice: null, problem: 'no-settings' };
    const card = files.find((f) => f !== model && f !== settings);
    const { voice: tried, problem } = await voiceWorker().tryVoice(model, await settings.text());
    if (!tried) return { voice: null, problem };
    const id = v4();
    await writeWhole(modelFile(id), (file) => file.write(model));
    const voice: OwnVoice = {
      id,
      name,
      ...tried,
      card: ((await card?.text()) ?? '').slice(0, LONGEST_CARD),
      bytes: model.size
    };
    await saveOwnVoice(voice);
    return { voice, problem: null };
  });
}

/** Forgets a voice and its files. */
export async function forgetVoice(id: string): Promise<void> {
  await removeOwnVoice(id);
  await removeFiles([modelFile(id)]);
}
