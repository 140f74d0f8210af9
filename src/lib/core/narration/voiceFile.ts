import { z } from 'zod';

/**
 * What stands in the JSON file beside a voice in ONNX form: a network (VITS: Kim, Kong and Son 2021) that
 * makes sound from the phonemes of eSpeak NG.
 */
export const voiceFileSchema = z.object({
  audio: z.object({ sample_rate: z.number().int().min(8000).max(48_000) }),
  espeak: z.object({ voice: z.string().min(1) }),
  inference: z
    .object({
      noise_scale: z.number().default(0.667),
      length_scale: z.number().positive().default(1),
      noise_w: z.number().default(0.8)
    })
    .prefault({}),
  phoneme_type: z.string().default('espeak'),
  phoneme_id_map: z.record(z.string(), z.array(z.number().int().min(0))),
  num_speakers: z.number().int().min(1).default(1),
  language: z.object({ code: z.string().default(''), family: z.string().default('') }).prefault({}),
  dataset: z.string().default('')
});
export type VoiceFile = z.infer<typeof voiceFileSchema>;

/** Why a voice file cannot be taken. */
export type VoiceFileProblem =
  /** One of the two files is missing. */
  | 'no-model'
  | 'no-settings'
  /** The JSON file is not one of a voice. */
  | 'bad-settings'
  /** It wants other phonemes than those of eSpeak NG. */
  | 'other-phonemes'
  /** The network does not load, or says nothing. */
  | 'bad-model';

/** Reads the JSON file of a voice. */
export function readVoiceFile(
  text: string
): { file: VoiceFile; problem: null } | { file: null; problem: VoiceFileProblem } {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return { file: null, problem: 'bad-settings' };
  }
  const { data } = voiceFileSchema.safeParse(parsed);
  if (!data) return { file: null, problem: 'bad-settings' };
  if (data.phoneme_type !== 'espeak') return { file: null, problem: 'other-phonemes' };
  return { file: data, problem: null };
}

/** BCP 47 of a voice: that of its file, else the one its phonemes are of. */
export const languageOfVoice = ({ language, espeak }: VoiceFile): string =>
  (language.code || espeak.voice).replace('_', '-');

const [PAD, BEGIN, END] = ['_', '^', '$'];

/**
 * The numbers a voice reads: those of the phonemes, with a pad after each and a mark at both ends.
 * Phonemes that it does not know are passed over.
 * @param phonemes a clause or more as eSpeak NG tells them, in IPA, with spaces and punctuation
 */
export function phonemeIds(phonemes: string, { phoneme_id_map: ids }: VoiceFile): number[] {
  const pad = ids[PAD] ?? [];
  const said = [...phonemes.normalize('NFD')].flatMap((p) => (ids[p] ? [...ids[p], ...pad] : []));
  return [...(ids[BEGIN] ?? []), ...pad, ...said, ...(ids[END] ?? [])];
}

/** Phonemes that are said in one go: the time of a network grows faster than what it says. */
const MOST = 400;

/** Puts clauses together as long as they are said in one go. */
export function batches(clauses: readonly string[]): string[] {
  const batches: string[] = [];
  for (const clause of clauses) {
    const last = batches.at(-1);
    if (last !== undefined && last.length + clause.length < MOST)
      batches[batches.length - 1] = `${last} ${clause}`;
    else batches.push(clause);
  }
  return batches;
}
