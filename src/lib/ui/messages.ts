import { localZone } from '$lib/localZone.ts';
import { DateTime } from 'luxon';
import { driftMessage } from './driftMessages.ts';
import { plural } from '$lib/core/text/plural.ts';
import type { EmptyReason } from '$lib/core/article/template/compose.ts';
import type { Finding } from '$lib/core/article/review/checks.ts';
import type { FillProblem } from '$lib/core/article/template/fill.ts';
import type { BlockKind } from '$lib/core/article/template/template.ts';
import type { JournalLine } from '$lib/core/model/journal.ts';
import type { Outcome } from '$lib/core/model/journalFilter.ts';
import type { Problem, ProblemKind, Right } from '$lib/core/model/place.ts';
import type { Relation } from '$lib/core/model/tie.ts';
import type { Standing, TwinReason } from '$lib/core/model/twin.ts';

export const standingLabels: Record<Standing, string> = {
  'in-step': 'In step',
  'no-post': 'No post yet',
  'no-video': 'No video yet',
  drifted: 'Drifted',
  'in-hand': 'In progress',
  'set-aside': 'Set aside'
};

/** What the list says where no twin has a standing. */
export const noneLabels: Record<Standing, string> = {
  'in-step': 'Nothing is in step yet',
  'no-post': 'Every video has a post',
  'no-video': 'Every post has a video',
  drifted: 'Nothing has drifted',
  'in-hand': 'Nothing is in progress',
  'set-aside': 'Nothing is set aside'
};

/** How a video and a post that the user paired belong together. */
const relationMessages: Record<Relation, string> = {
  twin: 'You paired them.',
  'several-videos': 'The post is about this video and others. You paired them.',
  'several-posts': 'The video has several posts. You paired them.',
  'part-of': 'One is part of the other. You paired them.'
};

export function reasonMessage(reason: TwinReason): string {
  switch (reason.kind) {
    case 'embeds':
      return 'The post shows the video.';
    case 'links':
      return 'The post links to the video.';
    case 'made-here':
      return 'One was made from the other here.';
    case 'paired':
      return relationMessages[reason.relation];
    case 'alone':
      return 'Nothing on the other side shows or links to it.';
    case 'premiere':
      return `Premieres ${formatDateTime(reason.on)}.`;
    case 'differs':
      return driftMessage(reason);
    case 'post-is-draft':
      return 'The post is a draft.';
    case 'post-is-private':
      return 'The post is private.';
    case 'post-is-dated':
      return `The post will appear ${formatDateTime(reason.on)}.`;
    case 'video-is-private':
      return 'The video is private.';
    case 'video-is-dated':
      return `The video is scheduled for ${formatDateTime(reason.on)}.`;
    case 'embedding':
      return 'The post does not show the video yet.';
    case 'on-the-desk':
      return `On the desk since ${formatDate(reason.since)}.`;
    case 'in-the-booth':
      return `In the booth since ${formatDate(reason.since)}.`;
    case 'post-is-gone':
      return 'It was made from a post that is not here any more.';
    case 'video-is-gone':
      return 'Its video is no longer at the channel.';
    case 'in-review':
      return 'Waits for review.';
    case 'planned':
      return 'Approved. Its lane publishes it in turn.';
    case 'publishing':
      return 'Publishing…';
    case 'publish-failed':
      return 'Publishing failed. The journal says why.';
    case 'set-aside':
      return `Set aside ${formatDate(reason.on)}.`;
  }
}

export interface ProblemText {
  what: string;
  todo: string;
}

const PROBLEMS: Record<ProblemKind, ProblemText> = {
  'bad-address': {
    what: 'This is not a web address.',
    todo: 'Paste the whole address from the address bar, beginning with https://.'
  },
  'forbidden-address': {
    what: 'This address is in a private network.',
    todo: 'Only public addresses can be read.'
  },
  'not-found': {
    what: 'There is nothing at this address.',
    todo: 'Check it for typing errors, or open it in another tab to see what is there.'
  },
  'no-answer': {
    what: 'The site did not answer.',
    todo: 'Check the address, or try again in a minute.'
  },
  'changed-there': {
    what: 'It was changed there since you last published it, so nothing was overwritten.',
    todo: 'Compare both versions, then choose one.'
  },
  'timed-out': { what: 'The site took too long to answer.', todo: 'Try again in a minute.' },
  'too-large': {
    what: 'It is too large.',
    todo: 'Use a smaller file, or connect a feed with fewer entries.'
  },
  'too-many-redirects': {
    what: 'The address redirects too often.',
    todo: 'Open it in another tab and paste the address it ends at.'
  },
  'server-error': {
    what: 'The site reported an error of its own.',
    todo: 'Try again in a minute.'
  },
  busy: { what: 'The site is limiting requests.', todo: 'Wait a minute, then try again.' },
  'not-a-feed': {
    what: 'This is not a feed.',
    todo: 'Paste the address of the channel or blog; its feed is found from there.'
  },
  'broken-feed': {
    what: 'The feed is broken or cut off, so nothing was read.',
    todo: 'Tell whoever runs the site, or try again later.'
  },
  'no-feed-found': {
    what: 'The page has no feed.',
    todo: 'Try the front page of the channel or blog, or paste its feed if you know it.'
  },
  'key-missing': {
    what: 'There is no key for this place.',
    todo: 'Add one under Places to publish there.'
  },
  'key-refused': {
    what: 'The place refused the key. It may be mistyped or have expired.',
    todo: 'Create a new key there and save it under Places.'
  },
  'right-missing': {
    what: 'The key does not have permission to do this.',
    todo: 'Create a key with this permission there and save it under Places.'
  },
  'over-quota': {
    what: 'The allowance at this place is used up.',
    todo: 'Try again when it is renewed, or raise it at the place.'
  },
  refused: { what: 'The site refused the request.', todo: 'What it said is below.' },
  'nothing-to-make': {
    what: 'Nothing of this kind can be made from it.',
    todo: 'Choose another form, or write it by hand in Updates.'
  },
  'not-understood': {
    what: 'The place sent an answer that makes no sense here.',
    todo: 'Nothing was changed. What is wrong with it is below; tell whoever runs the place.'
  },
  'keys-locked': {
    what: 'Your keys are locked.',
    todo: 'Enter your passphrase at the top of the page. What waits goes on by itself then.'
  },
  'signed-out': {
    what: 'You are signed out of Swift Twin.',
    todo: 'Reload the page and sign in. What you typed is kept in this browser.'
  },
  'too-heavy': {
    what: 'It took too long, so it was stopped.',
    todo: 'Nothing was changed. It is not tried again by itself; try it again if you trust where it comes from.'
  },
  storage: {
    what: 'This browser could not save it.',
    todo: 'Free some space on this device, then try again.'
  },
  internal: {
    what: 'Something went wrong in this application.',
    todo: 'Reload the page and try again. What went wrong is below.'
  },
  stopped: { what: 'Stopped.', todo: 'Nothing was lost. Start it again when you like.' }
};

export const problemMessage = (problem: Problem): ProblemText => PROBLEMS[problem.kind];

export const rightLabels: Record<Right, string> = {
  read: 'Read what is public',
  create: 'Publish',
  update: 'Edit',
  delete: 'Delete',
  draft: 'Save drafts only',
  media: 'Upload files'
};

export const blockLabels: Record<BlockKind, string> = {
  embed: 'Video',
  lead: 'Lead-in',
  summary: 'Summary',
  takeaways: 'Takeaways',
  picture: 'Picture',
  description: 'Description',
  chapters: 'Chapters',
  article: 'Article',
  quote: 'Quotation',
  text: 'Free text',
  transcript: 'Transcript',
  credit: 'Credit',
  closing: 'Closing note'
};

const EMPTY: Record<EmptyReason, string> = {
  'no-embed': 'the channel has no player for this video',
  'no-picture': 'the video has no picture',
  'no-description': 'the video has no description',
  'no-chapters': 'the video has no chapters',
  'no-captions': 'the video has no captions',
  'no-text': 'it has no text',
  'no-fit': 'no sentence of the talk fits'
};
export const emptyMessage = (reason: EmptyReason): string => EMPTY[reason];

export function fieldMessage(problem: FillProblem): string {
  switch (problem.kind) {
    case 'syntax':
      return `A field has a mistake: ${problem.detail}`;
    case 'unclosed-variant':
      return `“${problem.detail}” has no closing brace. Write {one|another}.`;
    case 'unknown-field':
      return `There is no field called ${problem.path}.`;
    case 'empty-field':
      return `The field ${problem.path} has no value here.`;
  }
}

export function findingMessage(finding: Finding): string {
  switch (finding.kind) {
    case 'no-title':
      return 'The post has no title.';
    case 'no-embed':
      return 'The post does not show the video.';
    case 'title-as-category':
      return 'The whole title is used as a category or tag.';
    case 'excerpt-empty':
      return 'There is no excerpt.';
    case 'credit-missing':
      return 'This is someone else’s video, and no credit is given.';
    case 'no-links':
      return 'The text has no links.';
    case 'not-from-talk':
      return finding.count === 1
        ? `A sentence does not come from this video: “${finding.text}”`
        : `${finding.count} sentences do not come from this video, such as “${finding.text}”`;
    case 'picture-without-text':
      return finding.count === 1
        ? 'A picture has no text alternative.'
        : `${finding.count} pictures have no text alternative.`;
    case 'frame-left-out':
      return `A frame is left out, as it is not of a connected place: ${finding.address.slice(0, 80)}`;
    case 'title-long':
      return `The title has ${finding.length} characters; ${finding.limit} are shown.`;
    case 'excerpt-long':
      return `The excerpt has ${finding.length} characters; ${finding.limit} are enough.`;
    case 'empty-block':
      return `Empty section: ${emptyMessage(finding.reason)}.`;
    case 'field':
      return fieldMessage(finding.problem);
    case 'broken-html':
      return finding.detail === 'curly-quotes'
        ? `The code of <${finding.text}> has typographic quotes, so it will not work.`
        : finding.detail === 'unclosed'
          ? `<${finding.text}> is opened and not closed.`
          : 'A frame has no address.';
  }
}

export function whereMessage(finding: Finding): string {
  if (typeof finding.where === 'object')
    return blockLabels[finding.where.block as BlockKind] ?? 'Block';
  return finding.where[0]?.toUpperCase() + finding.where.slice(1);
}

const LINES: Record<JournalLine['what'], string> = {
  connected: 'Connected',
  disconnected: 'Disconnected',
  read: 'Read',
  'read-failed': 'Reading failed',
  'key-saved': 'Key saved',
  'key-removed': 'Key removed',
  'passphrase-set': 'Passphrase of the keys set',
  'passphrase-removed': 'Passphrase of the keys removed',
  'keys-forgotten': 'All keys forgotten',
  published: 'Published',
  updated: 'Updated',
  removed: 'Deleted',
  'publish-failed': 'Publishing failed',
  'video-ready': 'Video is ready',
  embedded: 'Embedded in its post',
  'posted-by-hand': 'Posted by hand',
  run: 'Lane ran',
  'run-failed': 'Lane failed',
  'lane-paused': 'Lane paused',
  rescheduled: 'Rescheduled',
  'rescheduled-anyway': 'Rescheduled beyond the limits',
  'fell-due': 'Missed while closed',
  'kept-theirs': 'Kept as it is at the blog',
  discarded: 'Changes discarded',
  'lane-deleted': 'Lane deleted',
  'layout-deleted': 'Layout deleted',
  'started-over': 'Everything cleared',
  'visits-imported': 'Visits imported from an access log',
  'figures-imported': 'Figures imported from a table',
  archived: 'Archive made',
  'comments-brought': 'Comments added to the post',
  'comments-removed': 'Comments removed from the post',
  'brought-in': 'Archive imported',
  'brought-back': 'Brought back',
  'set-aside': 'Set aside',
  restored: 'Restored',
  accepted: 'Accepted as in step',
  paired: 'Paired',
  unpaired: 'Pairing undone',
  'not-a-pair': 'Marked as not a pair'
};
export const outcomeLabels: Record<Outcome, string> = {
  published: 'Published',
  failed: 'Failed',
  removed: 'Undone',
  run: 'Runs of lanes',
  other: 'Changes'
};
export const lineMessage = (what: JournalLine['what']): string => LINES[what];

const inEnglish = (iso: string): DateTime => DateTime.fromISO(iso).setLocale('en');

/** A day: `26 Nov 2026`. @param iso ISO 8601 */
export const formatDate = (iso: string | null): string =>
  iso ? inEnglish(iso).toFormat('d LLL yyyy') : 'No date';
/** The time zone of this browser, as people call it: `Berlin time`. */
export const zoneName = (): string => {
  const timeZone = localZone();
  const city = timeZone.split('/').at(-1)?.replaceAll('_', ' ') ?? timeZone;
  return timeZone.includes('/') && !timeZone.startsWith('Etc/') ? `${city} time` : timeZone;
};
/** What a place said about a problem; codes of programs say nothing to anybody. */
export const problemDetail = ({ detail }: Pick<Problem, 'detail'>): string =>
  /^[A-Z][A-Z\d_]+$/.test(detail) ? '' : detail;
/** A moment in the time zone of this browser: `26 Nov 2026, 14:05`. @param iso ISO 8601 */
export const formatDateTime = (iso: string): string => inEnglish(iso).toFormat('d LLL yyyy, HH:mm');

export { plural };
