import { z } from 'zod';
import { voiceFileSchema } from './voiceFile.ts';

/** The engines that ship, and files of the user's own. */
export const engineNameSchema = z.enum(['flite', 'espeak', 'file']);
export type EngineName = z.infer<typeof engineNameSchema>;

/** How a voice sounds: as its engine makes it, balanced like speech, or balanced and in a small room. */
export const voiceToneSchema = z.enum(['plain', 'balanced', 'room']);
export type VoiceTone = z.infer<typeof voiceToneSchema>;

/** Who reads, and how. */
export const voiceChoiceSchema = z.object({
  engine: engineNameSchema,
  /** As the engine calls it; of a file, the name it is kept under. */
  voice: z.string(),
  speed: z.number().min(0.5).max(2).default(1),
  /** Plain where nothing is said. */
  tone: voiceToneSchema.optional(),
  /** Seconds of silence between two sentences, and around a heading. */
  sentencePause: z.number().min(0).max(3).default(0.35),
  partPause: z.number().min(0).max(5).default(0.7)
});
export type VoiceChoice = z.infer<typeof voiceChoiceSchema>;

export interface Voice {
  engine: EngineName;
  voice: string;
  /** BCP 47. */
  language: string;
  /** Which of several voices of a language it is. */
  manner: 'higher' | 'lower' | 'scottish' | 'plain';
}

/** A voice file of the user's own. */
export const ownVoiceSchema = z.object({
  id: z.string(),
  /** As the user's machine calls it. */
  name: z.string(),
  file: voiceFileSchema,
  /** What came with it on who made it and what may be done with it; empty where nothing did. */
  card: z.string(),
  bytes: z.number(),
  /** Seconds of speech made in one second, as tried on this machine. */
  pace: z.number()
});
export type OwnVoice = z.infer<typeof ownVoiceSchema>;

const flite = (voice: string, manner: Voice['manner']): Voice => ({
  engine: 'flite',
  voice,
  manner,
  language: manner === 'scottish' ? 'en-GB' : 'en-US'
});
const espeak = (voice: string, language = voice): Voice => ({
  engine: 'espeak',
  voice,
  language,
  manner: 'plain'
});

/** The voices that ship, the natural ones first. */
export const VOICES: readonly Voice[] = [
  flite('slt', 'higher'),
  flite('rms', 'lower'),
  flite('awb', 'scottish'),
  espeak('en', 'en-GB'),
  espeak('en-us', 'en-US'),
  ...'af ar bg bn bs ca cs cy da de el eo es et eu fa fi ga gu hi hr hu hy id is it ja ka kk kn ko ky la lb lt lv mk ml mr ms mt nb ne nl om or pa pl pt ro ru sd si sk sl sq sr sv sw ta te th tr tt uk ur uz yue'
    .split(' ')
    .map((code) => espeak(code)),
  espeak('fr'),
  espeak('pt-br', 'pt-BR'),
  espeak('cmn', 'zh'),
  espeak('he'),
  espeak('vi')
];

/** The voices for a language, best first; all English ones for English of any country. */
export function voicesFor(language: string): Voice[] {
  const base = (code: string) => code.toLowerCase().split('-')[0];
  const wanted = VOICES.filter((v) => base(v.language) === base(language));
  const exact = (v: Voice) => (v.language.toLowerCase() === language.toLowerCase() ? 0 : 1);
  return [...wanted].sort((a, b) => (a.engine === b.engine ? exact(a) - exact(b) : 0));
}

/** The voice that is taken where none was chosen; null where no engine knows the language. */
export function usualVoice(language: string): VoiceChoice | null {
  const [first] = voicesFor(language || 'en');
  return first
    ? voiceChoiceSchema.parse({ engine: first.engine, voice: first.voice, tone: 'balanced' })
    : null;
}
