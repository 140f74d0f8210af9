import type { Finding } from '$lib/core/article/review/checks.ts';
import type { MakeFinding } from '$lib/core/delivery/outbox.ts';
import type { DetailsFinding } from '$lib/core/narration/details.ts';
import type { VersionProblem } from '$lib/core/updates/version.ts';
import { detailsMessage, frameLabels } from './boothMessages.ts';
import type { Lane } from '$lib/core/lanes/lane.ts';
import type { PaceReason, PaceSlot } from '$lib/core/lanes/pace.ts';
import type { Rate } from '$lib/core/lanes/rate.ts';
import type { RecordState } from '$lib/core/lanes/record.ts';
import type { DropReason } from '$lib/core/lanes/filter.ts';
import { noQuizLabels } from './updateMessages.ts';
import { findingMessage, formatDate, formatDateTime, plural } from './messages.ts';
import { versionMessage } from './updateMessages.ts';

export const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

export const recordLabels: Record<RecordState, string> = {
  found: 'Found',
  dropped: 'Left out',
  'in-review': 'Waiting for review',
  planned: 'Planned',
  publishing: 'Publishing',
  published: 'Published',
  failed: 'Failed',
  undone: 'Undone',
  skipped: 'Never made'
};

export const paceReasonLabels: Record<PaceReason, string> = {
  'not-before': 'when its first day comes',
  busy: 'when your busy time is over',
  gap: 'after the minutes between items',
  hours: 'when the hours start',
  weekday: 'on the next weekday that you chose',
  'day-full': 'because the day is full',
  'week-full': 'because the week is full',
  allowance: 'when the allowance is renewed'
};

/**
 * What fell due while the application was closed, and what becomes of it.
 * @param opened when it was opened again
 */
export function missedMessage(slots: readonly PaceSlot[], opened: number): string {
  const date = (at: number) => formatDateTime(new Date(at).toISOString());
  const [first, ...rest] = slots;
  if (!first) return '';
  const head = `When this was opened on ${date(opened)}, ${plural(slots.length, 'item was', 'items were')} due`;
  const one = first.at <= opened ? 'to go out at once' : `to go out ${date(first.at)}`;
  const [next] = rest;
  const last = rest.at(-1);
  if (!next || !last) return `${head}, ${one}.`;
  const why = next.waitsFor ? `, ${paceReasonLabels[next.waitsFor]}` : '';
  const others =
    rest.length === 1
      ? `the other ${date(next.at)}${why}`
      : `the next ${date(next.at)}${why}, the last of them ${date(last.at)}`;
  return `${head}: one ${one}, ${others}.`;
}

/** Why an item is left out, as a sentence. */
export function dropMessage(reason: DropReason): string {
  switch (reason.kind) {
    case 'other-creator':
      return `It is by ${reason.creator || 'somebody without a name'}.`;
    case 'not-searched':
      return 'The search does not match it.';
    case 'not-listed':
      return 'It is not on the list.';
    case 'not-in-playlist':
      return 'It is not in the playlists.';
    case 'before-the-lane':
      return 'It is older than the lane, which takes only what is new.';
    case 'no-date':
      return 'It has no date.';
    case 'too-old':
      return `It is ${plural(reason.days, 'day', 'days')} old.`;
    case 'not-out-yet':
      return 'It is not out yet.';
    case 'not-public':
      return 'It is not public.';
    case 'too-short':
      return `It is too short: ${Math.round(reason.seconds)} seconds.`;
    case 'too-long':
      return `It is too long: ${plural(Math.round(reason.seconds / 60), 'minute', 'minutes')}.`;
    case 'no-length':
      return 'Its length is not known.';
    case 'language':
      return `It is in another language (${reason.language || 'not known'}).`;
    case 'no-captions':
      return 'It has no captions.';
    case 'no-picture':
      return 'It has no picture.';
    case 'not-own':
      return `It is by ${reason.author}, and the lane takes your own only.`;
    case 'no-permission':
      return `It is by ${reason.author}, without an open licence, and without a permission.`;
    case 'lacks-words':
      return 'It has none of the words it must contain.';
    case 'has-word':
      return `“${reason.word}” is in it.`;
    case 'too-few-words':
      return `It has only ${plural(reason.words, 'word', 'words')}.`;
    case 'too-many-words':
      return `It has ${plural(reason.words, 'word', 'words')}, too many.`;
    case 'no-such-tag':
      return 'It has none of the tags.';
    case 'made-item':
      return 'It was made from something else: taking it would go round in a circle.';
    case 'like-a-made-item':
      return `It is nearly the same as “${reason.title}”, which was made here.`;
    case 'has-twin':
      return `It has its other half already: “${reason.title}”.`;
    case 'likely-twin':
      return `“${reason.title}” seems to be its other half. Pair them, or say that they are not a pair.`;
    case 'other-half':
      return `Its other half is shared instead: “${reason.title}”.`;
    case 'in-hand':
      return 'Its other half is being made by hand.';
    case 'set-aside':
      return 'You set it aside.';
    case 'made-already':
      return 'It was made already, by hand or by another lane.';
    case 'nothing-to-make':
      return reason.why === 'no-poll'
        ? 'It gives no question with answers to choose from.'
        : noQuizLabels[reason.why];
    case 'rate-guard':
      return `The lane took ${reason.made} in a week, far more than usual. It waits for your review.`;
    case 'enough-in-all':
      return `The lane makes ${reason.most} in all, and has them.`;
  }
}

/** How much a source gives, in words. */
export function rateMessage({ everyDays }: Rate, passes: number): string {
  const now = `${plural(passes, 'item matches', 'items match')} now`;
  if (everyDays === null) return `${now}; the source had none in the past twelve weeks.`;
  const often =
    everyDays >= 1.5
      ? `about one in ${Math.round(everyDays)} days`
      : `about ${(7 / everyDays).toFixed(0)} a week`;
  return `${now}; the source had ${often} in the past twelve weeks.`;
}

const list = (names: readonly string[]): string =>
  names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? '');

export function sourceMessage({ source }: Lane, names: ReadonlyMap<string, string>): string {
  if (source.places.length === 0) return 'No source yet';
  const { any, all, phrase, without, hashtag } = source.search;
  const parts = [
    list(source.places.map((id) => names.get(id) ?? 'a place that is not linked')),
    source.playlists.length > 0
      ? `in ${plural(source.playlists.length, 'playlist', 'playlists')}`
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

const scopeWords: Record<Lane['filter']['scope'], string> = {
  new: 'Only new ones',
  'newest-first': 'Newest first',
  'oldest-first': 'Oldest first',
  'most-seen-first': 'Most seen first'
};

export function filterMessage({ filter }: Lane): string {
  const { scope, notOlderThan, mostInAll, shortest, longest, languages } = filter;
  const parts = [
    scopeWords[scope],
    mostInAll ? `at most ${mostInAll} in all` : '',
    notOlderThan ? `not older than ${plural(notOlderThan, 'day', 'days')}` : '',
    shortest ? `at least ${Math.round(shortest / 60)} min` : '',
    longest ? `at most ${Math.round(longest / 60)} min` : '',
    languages.length > 0 ? `in ${list(languages)}` : '',
    filter.needsCaptions ? 'with captions' : '',
    filter.needsPicture ? 'with a picture' : '',
    filter.others === 'never' ? 'your own' : 'others’ with a right',
    filter.keep.length > 0 ? `with ${filter.keep.join(' or ')}` : '',
    filter.drop.length > 0 ? `without ${filter.drop.join(', ')}` : ''
  ];
  return parts.filter(Boolean).join(', ');
}

/** @param layouts names of kept layouts, by id */
export function makeMessage({ make }: Lane, layouts: ReadonlyMap<string, string>): string {
  if (make.kind === 'video')
    return make.look
      ? `A narrated video, ${frameLabels[make.look.frame].toLowerCase()}, in its own look`
      : 'A narrated video, as the last one';
  if (make.kind === 'update')
    return { text: `A short text, ${make.manner}`, poll: 'A poll', quiz: 'A quiz' }[make.form];
  const name = make.layout && layouts.get(make.layout);
  const rules = make.layoutRules.length;
  const others = rules > 0 ? `, with ${plural(rules, 'rule', 'rules')} for others` : '';
  return `A post, laid out as ${name ? `“${name}”` : 'the last one'}${others}`;
}

export function paceMessage({ pace }: Lane): string {
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
    pace.rampDays ? 'slowly at first' : '',
    pace.notBefore ? `from ${formatDate(pace.notBefore)}` : ''
  ];
  return parts.filter(Boolean).join(', ');
}

export const approvalMessage = ({ approval }: Lane): string =>
  ({
    'after-review': 'Waits for your review',
    'if-no-check-complains': 'Straight out if no check complains',
    always: 'Publish without approval'
  })[approval.mode];

export function targetsMessage(
  { targets, make }: Lane,
  names: ReadonlyMap<string, string>
): string {
  if (targets.length === 0) return 'No place yet';
  return targets
    .map(({ placeId, status }) => {
      const name = names.get(placeId) ?? 'a place that is not linked';
      return make.kind === 'update' ? name : `${name}, ${status}`;
    })
    .join('; ');
}

/** A finding of whatever was made, in words. */
export function makeFindingMessage({ of, finding }: MakeFinding): string {
  // The check of its kind made it, and nothing else writes findings of this kind.
  if (of === 'post') return findingMessage(finding as unknown as Finding);
  if (of === 'video') return detailsMessage(finding as unknown as DetailsFinding);
  return versionMessage(finding as unknown as VersionProblem);
}
