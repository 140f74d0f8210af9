import type { Lane } from '$lib/core/lanes/lane.ts';
import type { PaceReason, PaceSlot } from '$lib/core/lanes/pace.ts';
import type { Rate } from '$lib/core/lanes/rate.ts';
import type { RecordState } from '$lib/core/lanes/record.ts';
import type { DropReason } from '$lib/core/lanes/sift.ts';
import { noQuizWords } from './updateWords.ts';
import { countWords, dateTimeWords } from './words.ts';

export const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

export const recordWords: Record<RecordState, string> = {
  found: 'Found',
  dropped: 'Left out',
  'in-review': 'Waits for review',
  planned: 'Planned',
  placing: 'Being placed',
  placed: 'Placed',
  failed: 'Failed',
  undone: 'Taken back',
  skipped: 'Skipped for good'
};

export const paceReasonWords: Record<PaceReason, string> = {
  gap: 'after the time between two',
  hours: 'when the hours begin',
  weekday: 'on the next of its weekdays',
  'day-full': 'because the day is full',
  'week-full': 'because the week is full',
  allowance: 'when the place takes more'
};

/**
 * What fell due while the application was closed, and what becomes of it.
 * @param opened when it was opened again
 */
export function missedWords(slots: readonly PaceSlot[], opened: number): string {
  const date = (at: number) => dateTimeWords(new Date(at).toISOString());
  const [first, ...rest] = slots;
  if (!first) return '';
  const head = `When this was opened on ${date(opened)}, ${countWords(slots.length, 'item was', 'items were')} due`;
  const one = first.at <= opened ? 'to go out at once' : `to go out ${date(first.at)}`;
  const [next] = rest;
  const last = rest.at(-1);
  if (!next || !last) return `${head}, ${one}.`;
  const why = next.waitsFor ? `, ${paceReasonWords[next.waitsFor]}` : '';
  const others =
    rest.length === 1
      ? `the other ${date(next.at)}${why}`
      : `the next ${date(next.at)}${why}, the last of them ${date(last.at)}`;
  return `${head}: one ${one}, ${others}.`;
}

/** Why an item is left out, as a sentence. */
export function dropWords(reason: DropReason): string {
  switch (reason.kind) {
    case 'other-creator':
      return `It is by ${reason.creator || 'somebody without a name'}.`;
    case 'not-searched':
      return 'It is not what the search asks for.';
    case 'not-listed':
      return 'It is not on the list.';
    case 'not-in-playlist':
      return 'It is in none of the playlists.';
    case 'before-the-lane':
      return 'It is older than the lane, which takes only what is new.';
    case 'no-date':
      return 'Its place tells no date.';
    case 'too-old':
      return `It is ${countWords(reason.days, 'day', 'days')} old.`;
    case 'not-out-yet':
      return 'It is not out yet.';
    case 'not-public':
      return 'It is not public.';
    case 'too-short':
      return `It is too short: ${Math.round(reason.seconds)} seconds.`;
    case 'too-long':
      return `It is too long: ${countWords(Math.round(reason.seconds / 60), 'minute', 'minutes')}.`;
    case 'no-length':
      return 'Its place does not tell how long it is.';
    case 'language':
      return `It is in another language (${reason.language || 'which, is not told'}).`;
    case 'no-captions':
      return 'It has no captions.';
    case 'no-picture':
      return 'It has no picture.';
    case 'not-own':
      return `It is by ${reason.author}, and the lane takes your own only.`;
    case 'no-permission':
      return `It is by ${reason.author}, without an open licence, and no permission is noted.`;
    case 'lacks-words':
      return 'None of the words that it must have stands in it.';
    case 'has-word':
      return `“${reason.word}” stands in it.`;
    case 'too-few-words':
      return `It has only ${countWords(reason.words, 'word', 'words')}.`;
    case 'too-many-words':
      return `It has ${countWords(reason.words, 'word', 'words')}, too many.`;
    case 'no-such-tag':
      return 'It has none of the tags.';
    case 'made-item':
      return 'It was made from something else: taking it would go round in a circle.';
    case 'like-a-made-item':
      return `It is nearly the same as “${reason.title}”, which was made here.`;
    case 'has-twin':
      return `It has its other half already: “${reason.title}”.`;
    case 'in-hand':
      return 'Its other half is being made by hand.';
    case 'set-aside':
      return 'You set it aside.';
    case 'made-already':
      return 'It was made already, by hand or by another lane.';
    case 'nothing-to-make':
      return reason.why === 'no-poll'
        ? 'It gives no question with answers to choose from.'
        : noQuizWords[reason.why];
    case 'brake':
      return `The lane took ${reason.made} in a week, far more than usual. It is held until you look.`;
    case 'enough-in-all':
      return `The lane makes ${reason.most} in all, and has them.`;
  }
}

/** How much a source gives, in words. */
export function rateWords({ everyDays }: Rate, passes: number): string {
  const now = `${countWords(passes, 'item passes', 'items pass')} now`;
  if (everyDays === null) return `${now}; the source gave none in the past twelve weeks.`;
  const often =
    everyDays >= 1.5
      ? `about one in ${Math.round(everyDays)} days`
      : `about ${(7 / everyDays).toFixed(0)} a week`;
  return `${now}; the source gave ${often} in the past twelve weeks.`;
}

const list = (names: readonly string[]): string =>
  names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '');

export function sourceWords({ source }: Lane, names: ReadonlyMap<string, string>): string {
  if (source.places.length === 0) return 'No source yet';
  const { any, all, phrase, without, hashtag } = source.search;
  const parts = [
    list(source.places.map((id) => names.get(id) ?? 'a place that is not linked')),
    source.playlists.length > 0
      ? `in ${countWords(source.playlists.length, 'playlist', 'playlists')}`
      : '',
    source.creators.length > 0 ? `by ${list(source.creators)}` : '',
    any.length > 0 ? `with any of ${list(any)}` : '',
    all.length > 0 ? `with ${list(all)}` : '',
    phrase ? `with “${phrase}”` : '',
    without.length > 0 ? `without ${list(without)}` : '',
    hashtag ? `tagged ${hashtag}` : '',
    source.sheet ? `of a list of ${source.sheet.rows.length}` : ''
  ];
  return parts.filter(Boolean).join(', ');
}

const scopeWords: Record<Lane['sift']['scope'], string> = {
  new: 'Only new ones',
  'newest-first': 'Newest first',
  'oldest-first': 'Oldest first',
  'most-seen-first': 'Most seen first'
};

export function siftWords({ sift }: Lane): string {
  const { scope, notOlderThan, mostInAll, shortest, longest, languages } = sift;
  const parts = [
    scopeWords[scope],
    mostInAll ? `at most ${mostInAll} in all` : '',
    notOlderThan ? `not older than ${countWords(notOlderThan, 'day', 'days')}` : '',
    shortest ? `at least ${Math.round(shortest / 60)} min` : '',
    longest ? `at most ${Math.round(longest / 60)} min` : '',
    languages.length > 0 ? `in ${list(languages)}` : '',
    sift.needsCaptions ? 'with captions' : '',
    sift.needsPicture ? 'with a picture' : '',
    sift.others === 'never' ? 'your own' : 'others’ with a right',
    sift.keep.length > 0 ? `with ${sift.keep.join(' or ')}` : '',
    sift.drop.length > 0 ? `without ${sift.drop.join(', ')}` : ''
  ];
  return parts.filter(Boolean).join(', ');
}

/** @param layouts names of kept layouts, by id */
export function makeWords({ make }: Lane, layouts: ReadonlyMap<string, string>): string {
  if (make.kind === 'video') return 'A narrated video, as the last one';
  if (make.kind === 'update')
    return { text: `A short text, ${make.manner}`, poll: 'A poll', quiz: 'A quiz' }[make.form];
  const name = make.layout && layouts.get(make.layout);
  const rules = make.layoutRules.length;
  const others = rules > 0 ? `, with ${countWords(rules, 'rule', 'rules')} for others` : '';
  return `A post, laid out as ${name ? `“${name}”` : 'the last one'}${others}`;
}

export function paceWords({ pace }: Lane): string {
  const { perDay, perWeek, gap, weekdays, hours } = pace;
  const days =
    weekdays.length === 7
      ? ''
      : weekdays
          .toSorted()
          .map((d) => DAYS[d - 1]?.slice(0, 3))
          .join(', ');
  const parts = [
    perDay ? `${perDay} a day` : 'Any number a day',
    perWeek ? `${perWeek} a week` : '',
    gap > 0 ? `${gap >= 60 && gap % 60 === 0 ? `${gap / 60} h` : `${gap} min`} apart` : '',
    days,
    hours.from === 0 && hours.to === 24 ? 'at any hour' : `${hours.from}–${hours.to} h`,
    pace.rampDays ? 'slowly at first' : ''
  ];
  return parts.filter(Boolean).join(', ');
}

export const gateWords = ({ gate }: Lane): string =>
  ({
    'after-review': 'Waits for your review',
    'if-no-check-complains': 'Straight out if no check complains',
    always: 'Straight out'
  })[gate.opens];

export function targetsWords({ targets, make }: Lane, names: ReadonlyMap<string, string>): string {
  if (targets.length === 0) return 'No place yet';
  return targets
    .map(({ placeId, status }) => {
      const name = names.get(placeId) ?? 'a place that is not linked';
      return make.kind === 'update' ? name : `${name}, ${status}`;
    })
    .join('; ');
}
