import type { EmptyReason } from '$lib/core/article/compose.ts';
import type { Finding } from '$lib/core/article/checks.ts';
import type { FillProblem } from '$lib/core/article/fill.ts';
import type { BlockKind } from '$lib/core/article/template.ts';
import type { JournalLine } from '$lib/core/model/journal.ts';
import type { Outcome } from '$lib/core/model/journalFilter.ts';
import type { Problem, ProblemKind, Right } from '$lib/core/model/place.ts';
import type { Standing, TwinReason } from '$lib/core/model/twin.ts';

export const standingWords: Record<Standing, string> = {
  'in-step': 'In step',
  'no-post': 'No post yet',
  'no-video': 'No video yet',
  drifted: 'Drifted',
  'in-hand': 'In hand',
  'set-aside': 'Set aside'
};

export function reasonWords(reason: TwinReason): string {
  switch (reason.kind) {
    case 'embeds':
      return 'The post shows the video.';
    case 'links':
      return 'The post links to the video.';
    case 'made-here':
      return 'One was made from the other here.';
    case 'alone':
      return 'Nothing on the other side shows or links to it.';
    case 'premiere':
      return `Premieres ${dateTimeWords(reason.on)}.`;
    case 'differs':
      return 'The video has another title now than its post.';
    case 'post-is-draft':
      return 'The post is a draft.';
    case 'post-is-private':
      return 'The post is private.';
    case 'post-is-dated':
      return `The post will appear ${dateTimeWords(reason.on)}.`;
    case 'on-the-desk':
      return `On the desk since ${dateWords(reason.since)}.`;
    case 'in-the-booth':
      return `In the booth since ${dateWords(reason.since)}.`;
    case 'post-is-gone':
      return 'It was made from a post that is not here any more.';
    case 'being-placed':
      return 'Being placed.';
    case 'placing-failed':
      return 'Placing failed. The journal says why.';
    case 'set-aside':
      return `Set aside ${dateWords(reason.on)}.`;
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
    what: 'This address lies in a private network.',
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
  'timed-out': { what: 'The site took too long to answer.', todo: 'Try again in a minute.' },
  'too-large': {
    what: 'It is larger than can be taken.',
    todo: 'Use a smaller file, or link a feed with fewer entries.'
  },
  'too-many-redirects': {
    what: 'The address leads on and on.',
    todo: 'Open it in another tab and paste the address it ends at.'
  },
  'server-error': {
    what: 'The site reported an error of its own.',
    todo: 'Try again in a minute.'
  },
  busy: { what: 'The site asks to be left alone for a while.', todo: 'Wait, then try again.' },
  'not-a-feed': {
    what: 'This is not a feed.',
    todo: 'Paste the address of the channel or blog; its feed is found from there.'
  },
  'broken-feed': {
    what: 'The feed is broken or cut off, so nothing of it was taken.',
    todo: 'Tell whoever runs the site, or try again later.'
  },
  'no-feed-found': {
    what: 'The page can be read, but it names no feed.',
    todo: 'Try the front page of the channel or blog, or paste its feed if you know it.'
  },
  'key-missing': {
    what: 'There is no key for this place.',
    todo: 'Give one under Places to publish there.'
  },
  'key-refused': {
    what: 'The place refused the key. It may be mistyped or have expired.',
    todo: 'Make a new key there and give it under Places.'
  },
  'right-missing': {
    what: 'The key does not have the right to do this.',
    todo: 'Make a key with this right there and give it under Places.'
  },
  'over-quota': {
    what: 'The allowance at this place is used up.',
    todo: 'Try again when it is renewed, or widen it at the place.'
  },
  refused: { what: 'The site refused the request.', todo: 'What it said is below.' },
  'nothing-to-make': {
    what: 'Nothing of this kind can be made of it.',
    todo: 'Choose another form, or write it by hand in Updates.'
  },
  stopped: { what: 'Stopped.', todo: 'Nothing was lost. Start it again when you like.' }
};

export const problemWords = (problem: Problem): ProblemText => PROBLEMS[problem.kind];

export const rightWords: Record<Right, string> = {
  read: 'Read what is public',
  create: 'Publish new items',
  update: 'Change them',
  delete: 'Remove them',
  draft: 'Leave drafts, not publish',
  media: 'Send files'
};

export const blockWords: Record<BlockKind, string> = {
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
  'no-embed': 'the channel gives no player for this video',
  'no-picture': 'the video has no picture',
  'no-description': 'the video has no description',
  'no-chapters': 'the video has no chapters',
  'no-captions': 'the video has no captions',
  'no-text': 'nothing is written here',
  'no-fit': 'no sentence of the talk is fit for it'
};
export const emptyWords = (reason: EmptyReason): string => EMPTY[reason];

export function fieldWords(problem: FillProblem): string {
  switch (problem.kind) {
    case 'syntax':
      return `A field is not written right: ${problem.detail}`;
    case 'unknown-field':
      return `There is no field called ${problem.path}.`;
    case 'empty-field':
      return `The field ${problem.path} has no value here.`;
  }
}

export function findingWords(finding: Finding): string {
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
    case 'picture-without-text':
      return finding.count === 1
        ? 'A picture has no text alternative.'
        : `${finding.count} pictures have no text alternative.`;
    case 'title-long':
      return `The title has ${finding.length} characters; ${finding.limit} are shown.`;
    case 'excerpt-long':
      return `The excerpt has ${finding.length} characters; ${finding.limit} are enough.`;
    case 'empty-block':
      return `On but empty: ${emptyWords(finding.reason)}.`;
    case 'field':
      return fieldWords(finding.problem);
    case 'broken-html':
      return finding.detail === 'curly-quotes'
        ? `The code of <${finding.text}> has typographic quotes, so it will not work.`
        : finding.detail === 'unclosed'
          ? `<${finding.text}> is opened and not closed.`
          : 'A frame has no address.';
  }
}

export function whereWords(finding: Finding): string {
  if (typeof finding.where === 'object')
    return blockWords[finding.where.block as BlockKind] ?? 'Block';
  return finding.where[0]?.toUpperCase() + finding.where.slice(1);
}

const LINES: Record<JournalLine['what'], string> = {
  linked: 'Linked',
  unlinked: 'Unlinked',
  read: 'Read',
  'read-failed': 'Reading failed',
  'key-given': 'Key given',
  'key-removed': 'Key removed',
  placed: 'Placed',
  replaced: 'Replaced',
  removed: 'Removed',
  'placing-failed': 'Placing failed',
  'video-ready': 'Ready to be watched',
  embedded: 'Embedded in its post',
  'posted-by-hand': 'Posted by hand',
  run: 'Lane ran',
  'run-failed': 'Lane failed',
  'lane-braked': 'Lane held',
  'fell-due': 'Fell due while closed',
  'set-aside': 'Set aside',
  'taken-up': 'Taken up again',
  accepted: 'Accepted as in step'
};
export const outcomeWords: Record<Outcome, string> = {
  placed: 'Placed',
  failed: 'Failed',
  removed: 'Taken back',
  run: 'Runs of lanes',
  other: 'Changes'
};
export const lineWords = (what: JournalLine['what']): string => LINES[what];

const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });
const dayAndTime = new Intl.DateTimeFormat('en-GB', {
  ...{ day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' }
});

const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

export const dateWords = (iso: string | null): string =>
  iso ? day.format(new Date(iso)) : 'No date';
/** The year is told where it is not this one. */
export function dateTimeWords(iso: string): string {
  const date = new Date(iso);
  const isThisYear = date.getFullYear() === new Date().getFullYear();
  return isThisYear ? dayAndTime.format(date) : `${day.format(date)}, ${time.format(date)}`;
}
export const countWords = (n: number, one: string, many: string): string =>
  `${n.toLocaleString('en')} ${n === 1 ? one : many}`;
