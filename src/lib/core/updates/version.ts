import type { UpdatePayload } from '../delivery/payload.ts';
import { cutText } from './cut.ts';
import type { Asked, UpdateDraft } from './draft.ts';
import { countText } from './limits.ts';
import type { UpdateLimits } from './placeLimits.ts';
import { shortText } from './shortText.ts';
import type { UpdateSource } from './source.ts';
import { threadOf } from './thread.ts';

/** Graphemes below which a part of a thread says too little. */
const SMALLEST_PART = 60;

/** Why a version cannot go out as it is. */
export type VersionProblem =
  | { kind: 'no-text' }
  | { kind: 'too-long'; by: number }
  | { kind: 'too-many-hashtags'; by: number }
  | { kind: 'picture-needed' }
  | { kind: 'picture-without-text' }
  | { kind: 'no-clips-here' }
  | { kind: 'clip-missing' }
  | { kind: 'clip-long'; most: number }
  | { kind: 'clip-large'; most: number }
  | { kind: 'clip-type'; type: string }
  | { kind: 'no-polls-here' }
  | { kind: 'no-quizzes-here' }
  | { kind: 'question-long'; by: number }
  | { kind: 'option-long'; option: number; by: number }
  | { kind: 'option-empty'; option: number }
  | { kind: 'options-alike' }
  | { kind: 'too-few-options' }
  | { kind: 'too-many-options'; by: number }
  | { kind: 'not-one-right' };

/** An update as it goes to one place. */
export interface Version {
  payload: UpdatePayload;
  /** As the place counts, hashtags and all, and the most it takes. */
  length: number;
  limit: number;
  /** The common text had to be cut for this place. */
  isCut: boolean;
  /** What follows in a thread, part by part; empty where all of it is in the first. */
  more: string[];
  problems: VersionProblem[];
}

export interface VersionPlace {
  id: string;
  limits: UpdateLimits;
  /** The link with the tags of this place. */
  link: string;
  /** Proposed for it, with their signs. */
  hashtags: readonly string[];
  /** As it is cut or drawn for this place, or null where there is none. */
  picture: { url: string; alt: string } | null;
}

/** What a button says. */
const BUTTONS = {
  en: { post: 'Read it', video: 'Watch it' },
  de: { post: 'Lesen', video: 'Ansehen' }
} as const;

/**
 * What goes to one place: the text written for it, else the common one cut to its limit, else one
 * made for it from the item; with its hashtags, picture and button.
 * @param now ISO 8601; polls and quizzes are open from then on
 */
export function versionFor(
  source: UpdateSource,
  draft: UpdateDraft,
  place: VersionPlace,
  now: string
): Version {
  const { limits } = place;
  const own = draft.own[place.id];
  const isText = draft.form === 'text';
  const hashtags = isText ? (own?.hashtags ?? place.hashtags.slice(0, limits.hashtags)) : [];
  const tagsLength = hashtags.length > 0 ? countText(` ${hashtags.join(' ')}`) : 0;
  // Where there is a button, the link is in it.
  const link = limits.hasButton ? '' : place.link;
  const room = limits.text - tagsLength;
  const asked = draft.form === 'poll' ? draft.poll : draft.form === 'quiz' ? draft.quiz : null;
  const made: { text: string; isCut: boolean; more?: string[] } = isText
    ? textFor({ ...source, link }, draft, own?.text ?? null, room, limits, place.id)
    : { text: asked?.question ?? '', isCut: false };
  const isShown =
    isText &&
    limits.picture !== 'none' &&
    (draft.shown !== 'nothing' || limits.picture === 'required');
  const clip = isText && draft.shown === 'clip' ? draft.clip : null;
  const code = source.language.startsWith('de') ? 'de' : 'en';
  const payload: UpdatePayload = {
    kind: 'update',
    form: draft.form,
    title: limits.title ? cutText(source.title, limits.title) : (made.text.split('\n')[0] ?? ''),
    hasTitle: limits.title !== null && isText,
    text: made.text,
    hashtags: [...hashtags],
    options: asked?.options.map((o) => ({ ...o, right: draft.form === 'quiz' && o.right })) ?? [],
    why: draft.form === 'quiz' ? (asked?.why ?? '') : '',
    closes: isText ? null : new Date(Date.parse(now) + draft.openFor * 3_600_000).toISOString(),
    picture: isShown && draft.shown !== 'clip' ? place.picture : null,
    clip: clip && {
      url: clip.id,
      alt: draft.alt ?? source.title,
      seconds: clip.seconds,
      type: clip.type
    },
    part: null,
    button:
      limits.hasButton && isText ? { label: BUTTONS[code][source.kind], url: place.link } : null
  };
  const length = countText(made.text, limits.linkWeight) + tagsLength;
  const problems = isText
    ? [...textProblems(payload, length, limits), ...clipProblems(draft, limits)]
    : askedProblems(draft.form, asked, limits);
  return {
    payload,
    length,
    limit: isText ? limits.text : (limits.poll?.question ?? 0),
    isCut: made.isCut,
    more: made.more ?? [],
    problems
  };
}

function textFor(
  source: UpdateSource,
  draft: UpdateDraft,
  own: string | null,
  room: number,
  { linkWeight, title, hasThreads }: UpdateLimits,
  placeId: string
): { text: string; isCut: boolean; more?: string[] } {
  const isInParts = draft.inParts && hasThreads && room >= SMALLEST_PART;
  if (own !== null) {
    const parts = isInParts ? threadOf(own, room, linkWeight) : [own];
    return { text: parts[0] ?? '', isCut: false, more: parts.slice(1) };
  }
  if (draft.text === null) {
    const { manner, variant, id } = draft;
    const seed = `${id}/${placeId}/${variant}`;
    return {
      text: shortText(source, { limit: room, linkWeight, manner, seed, withTitle: title === null })
        .text,
      isCut: false
    };
  }
  const common = draft.text.trim();
  const end = source.link && !common.includes(source.link) ? `\n\n${source.link}` : '';
  if (countText(common + end, linkWeight) <= room) return { text: common + end, isCut: false };
  if (isInParts) {
    const [first = '', ...more] = threadOf(common + end, room, linkWeight);
    return { text: first, isCut: false, more };
  }
  const cut = cutText(common, room - countText(end, linkWeight), linkWeight);
  return { text: `${cut}${end}`.trim(), isCut: true };
}

function textProblems(
  payload: UpdatePayload,
  length: number,
  limits: UpdateLimits
): VersionProblem[] {
  const problems: VersionProblem[] = [];
  if (!payload.text.trim()) problems.push({ kind: 'no-text' });
  if (length > limits.text) problems.push({ kind: 'too-long', by: length - limits.text });
  if (payload.hashtags.length > limits.hashtags)
    problems.push({ kind: 'too-many-hashtags', by: payload.hashtags.length - limits.hashtags });
  if (limits.picture === 'required' && !payload.picture && !payload.clip)
    problems.push({ kind: 'picture-needed' });
  const { alt } = payload.picture ?? payload.clip ?? {};
  if (alt !== undefined && !alt.trim()) problems.push({ kind: 'picture-without-text' });
  return problems;
}

function clipProblems(
  { shown, clip }: UpdateDraft,
  { clip: taken }: UpdateLimits
): VersionProblem[] {
  if (shown !== 'clip') return [];
  if (!taken) return [{ kind: 'no-clips-here' }];
  if (!clip) return [{ kind: 'clip-missing' }];
  const problems: VersionProblem[] = [];
  if (clip.seconds > taken.seconds) problems.push({ kind: 'clip-long', most: taken.seconds });
  if (clip.bytes > taken.bytes) problems.push({ kind: 'clip-large', most: taken.bytes });
  if (!taken.types.includes(clip.type)) problems.push({ kind: 'clip-type', type: clip.type });
  return problems;
}

function askedProblems(
  form: UpdateDraft['form'],
  asked: Asked | null,
  { poll, hasQuiz }: UpdateLimits
): VersionProblem[] {
  if (!poll) return [{ kind: form === 'quiz' ? 'no-quizzes-here' : 'no-polls-here' }];
  if (form === 'quiz' && !hasQuiz) return [{ kind: 'no-quizzes-here' }];
  if (!asked?.question.trim()) return [{ kind: 'no-text' }];
  const problems: VersionProblem[] = [];
  const over = countText(asked.question) - poll.question;
  if (over > 0) problems.push({ kind: 'question-long', by: over });
  if (asked.options.length < 2) problems.push({ kind: 'too-few-options' });
  if (asked.options.length > poll.most)
    problems.push({ kind: 'too-many-options', by: asked.options.length - poll.most });
  for (const [option, { text }] of asked.options.entries()) {
    const by = countText(text) - poll.option;
    if (by > 0) problems.push({ kind: 'option-long', option, by });
    if (!text.trim()) problems.push({ kind: 'option-empty', option });
  }
  const names = asked.options.map((o) => o.text.trim().toLowerCase()).filter(Boolean);
  if (new Set(names).size < names.length) problems.push({ kind: 'options-alike' });
  if (form === 'quiz' && asked.options.filter((o) => o.right).length !== 1)
    problems.push({ kind: 'not-one-right' });
  return problems;
}
