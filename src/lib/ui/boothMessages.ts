import { timeCode } from '$lib/core/chapters/chapter.ts';
import type { BedName } from '$lib/core/audio/synth/beds.ts';
import type { DetailsFinding } from '$lib/core/narration/details.ts';
import type { FrameName } from '$lib/core/narration/frames.ts';
import type { MediaProblem, Render, RenderProblem } from '$lib/core/narration/narration.ts';
import type { Piece, SceneKind } from '$lib/core/narration/scenes.ts';
import type { LeftSilentReason } from '$lib/core/narration/script.ts';
import type { StyleName, Typeface } from '$lib/core/narration/styles.ts';
import type { VoiceFileProblem } from '$lib/core/narration/voiceFile.ts';
import type { Voice, VoiceTone } from '$lib/core/narration/voices.ts';
import type { SpeechProblem } from '$lib/voice/speech.ts';
import { fieldMessage } from './messages.ts';

export const sceneLabels: Record<SceneKind, string> = {
  title: 'Title',
  section: 'Heading',
  map: 'Heading with parts',
  statement: 'Statement',
  list: 'List',
  steps: 'Steps',
  figure: 'Figure',
  comparison: 'Comparison',
  table: 'Table',
  chart: 'Bar chart',
  quote: 'Quotation',
  question: 'Question and answer',
  term: 'Definition',
  picture: 'Picture',
  beside: 'Picture with words',
  'before-after': 'Before and after',
  end: 'End card'
};

export const pieceLabels: Record<Piece['role'], string> = {
  main: 'Words',
  value: 'Number',
  unit: 'Unit',
  meaning: 'Meaning',
  label: 'Name',
  point: 'Point',
  question: 'Question',
  answer: 'Answer',
  term: 'Term',
  cell: 'Cell',
  part: 'Part'
};

export const frameLabels: Record<FrameName, string> = {
  wide: 'Wide',
  upright: 'Upright',
  square: 'Square'
};

export const styleLabels: Record<StyleName, string> = {
  margin: 'Woven margin',
  band: 'Band',
  sheet: 'Sheet',
  panel: 'Colour panel',
  poster: 'Poster',
  line: 'Fine line'
};

export const bedLabels: Record<BedName, string> = {
  quiet: 'Quiet',
  bright: 'Bright',
  steady: 'Steady'
};

export const typefaceLabels: Record<Typeface, string> = {
  serif: 'With serifs',
  sans: 'Without serifs',
  mono: 'Even width'
};

const NOT_HEARD: Record<LeftSilentReason, string> = {
  code: 'Code is not read out.',
  table: 'A table is not read out.',
  footnote: 'Notes are not read out.',
  gallery: 'Of a gallery the first picture is shown.',
  embed: 'Something to play cannot be read out.',
  folded: 'Folded away in the post.',
  'over-length': 'Left out for the length.',
  'nothing-to-say': 'There is nothing in it to say.',
  'same-as-title': 'It says the title again.',
  'no-text-of-picture': 'The picture has no text alternative.'
};
export const leftSilentMessage = (reason: LeftSilentReason): string => NOT_HEARD[reason];

const SILENT: Record<SpeechProblem, string> = {
  'other-script': 'This voice has no sounds for this script. Choose a voice of its language.',
  'no-such-voice': 'This voice is not here.',
  silent: 'The voice said nothing. Write down how it is said.',
  'engine-failed': 'The voice failed on this sentence. Write it otherwise, or try another voice.'
};
export const silentMessage = (problem: SpeechProblem): string => SILENT[problem];

export const toneLabels: Record<VoiceTone, string> = {
  plain: 'As the voice is',
  balanced: 'Balanced',
  room: 'Balanced, in a small room'
};

/** Where a proposed picture comes from. */
export function pictureSourceMessage({
  from,
  film
}: {
  from: 'library' | 'thumbnail' | 'frame';
  film: { second: number } | null;
}): string {
  if (from === 'library') return 'Your picture';
  return from === 'frame' && film ? `Your video at ${timeCode(film.second)}` : 'Thumbnail';
}

const VOICE_FILE: Record<VoiceFileProblem, string> = {
  'no-model': 'Choose the .onnx file together with its .json file.',
  'no-settings': 'Its .json file is missing. Choose both files together.',
  'bad-settings': 'The .json file is not the settings of a voice. Nothing was changed.',
  'other-phonemes': 'This voice wants other phonemes than those of eSpeak NG. Nothing was changed.',
  'bad-model': 'The .onnx file cannot be loaded, or says nothing. Nothing was changed.'
};
export const voiceFileMessage = (problem: VoiceFileProblem): string => VOICE_FILE[problem];

/** How quick a voice is, before it is used. */
export const paceMessage = (pace: number): string =>
  pace >= 1.5
    ? `About ${Math.round(pace)} times faster than it speaks`
    : `Slow here: ten minutes of speech take about ${Math.ceil(10 / pace)} min`;

const languages = new Intl.DisplayNames(['en'], { type: 'language' });

/** A language of BCP 47 in words. */
export function languageName(code: string): string {
  try {
    return languages.of(code) ?? code;
  } catch {
    return code;
  }
}

export function voiceMessage({ language, manner, engine }: Voice): string {
  const name = languages.of(language) ?? language;
  const kind = { higher: ', higher', lower: ', lower', scottish: ', Scottish', plain: '' }[manner];
  return `${manner === 'scottish' ? 'British English' : name}${kind}${engine === 'espeak' && /^en/.test(language) ? ', plain' : ''}`;
}

export function mediaProblemMessage(problem: MediaProblem, name: string): string {
  switch (problem.kind) {
    case 'not-media':
      return `“${name}” is no sound or video file that can be read. Nothing was changed.`;
    case 'no-sound':
      return `“${name}” has no sound. Nothing was changed.`;
    case 'no-picture':
      return `“${name}” has no moving picture. Nothing was changed.`;
    case 'odd-codec':
      return `This browser cannot decode “${name}” (${problem.codec}). Save it as WebM or MP4 (H.264) and import it again. Nothing was changed.`;
    case 'no-voice':
      return `Sentences are found in a recording by a voice that reads them too, and none here speaks ${languageName(problem.language)}. Read it sentence by sentence instead. Nothing was changed.`;
  }
}

export const soundLabels: Record<Render['audio'], string> = { opus: 'Opus', aac: 'AAC' };

/** Which sound a file will have, and what follows from it. */
export function soundMessage({ format, audio }: Pick<Render, 'format' | 'audio'>): string {
  const sound = `Its sound is ${soundLabels[audio]}.`;
  return format === 'mp4' && audio === 'opus'
    ? `${sound} This browser cannot write AAC, which some services and older players want in an MP4 file. WebM is the safer choice here.`
    : sound;
}

export function renderProblemMessage(problem: RenderProblem): { what: string; todo: string } {
  switch (problem.kind) {
    case 'no-webcodecs':
      return {
        what: 'This browser cannot encode video.',
        todo: 'Use a browser that has WebCodecs. The script, captions, sound and pictures can still be exported.'
      };
    case 'no-such-format':
      return {
        what: `This browser cannot write ${problem.format === 'mp4' ? 'MP4' : 'WebM'}.`,
        todo: 'Choose the other format.'
      };
    case 'disk-full':
      return {
        what: 'There is no room left in the browser’s storage.',
        todo: 'Free some disk space, then continue: finished parts are kept.'
      };
    case 'stopped':
      return { what: 'Stopped.', todo: 'Finished parts are kept. Continue when you like.' };
    case 'media':
      return {
        what: 'A clip or sound of yours could not be read.',
        todo: mediaProblemMessage(problem.problem, 'the file')
      };
    case 'broken':
      return {
        what: 'Rendering failed.',
        todo: `Finished parts are kept; try again. It said: ${problem.detail || 'nothing'}`
      };
  }
}

const WHAT = { title: 'The title', description: 'The description', tags: 'The tags' };
export function detailsMessage(finding: DetailsFinding): string {
  switch (finding.kind) {
    case 'no-title':
      return 'The video has no title.';
    case 'no-channel':
      return 'No channel is chosen.';
    case 'no-date':
      return 'The date is missing.';
    case 'past-date':
      return 'The date has passed.';
    case 'no-link':
      return 'The description has no link to the post.';
    case 'angle-brackets':
      return 'Channels refuse < and > in a title.';
    case 'too-long':
      return `${WHAT[finding.what]} ${finding.what === 'tags' ? 'have' : 'has'} ${finding.length} characters; ${finding.limit} are allowed.`;
    case 'field':
      return fieldMessage(finding.problem);
  }
}

/** 4 min 10 s */
export function runningTime(seconds: number): string {
  const whole = Math.round(seconds);
  const [minutes, rest] = [Math.floor(whole / 60), whole % 60];
  return minutes === 0 ? `${rest} s` : rest === 0 ? `${minutes} min` : `${minutes} min ${rest} s`;
}
