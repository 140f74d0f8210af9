import { timeCode } from '$lib/core/chapters/chapter.ts';
import type { Change, TwinReason } from '$lib/core/model/twin.ts';

const changeNames: Record<Change['what'], string> = {
  title: 'title',
  description: 'description',
  captions: 'captions',
  chapters: 'chapters',
  picture: 'thumbnail',
  length: 'length',
  visibility: 'visibility',
  gone: 'video',
  text: 'text',
  tags: 'tags',
  edited: 'text or details'
};

const listOf = new Intl.ListFormat('en', { type: 'conjunction' });

/** What has drifted, in a sentence for each side. */
export function driftMessage({
  differences,
  changes
}: Extract<TwinReason, { kind: 'differs' }>): string {
  const said = [];
  if (differences.length > 0) said.push('The video has another title now than its post.');
  if (changes.some((change) => change.what === 'gone'))
    said.push('The video is no longer at the channel.');
  for (const side of ['video', 'post'] as const) {
    const names = changes
      .filter((change) => change.side === side && change.what !== 'gone')
      .map((change) => changeNames[change.what]);
    if (names.length > 0) said.push(`The ${side}’s ${listOf.format(names)} changed.`);
  }
  return said.join(' ');
}

/** What was changed of one half, as a line of a list. */
export function changeMessage({ side, what, before, after }: Change): string {
  const whose = side === 'video' ? 'Video' : 'Post';
  switch (what) {
    case 'gone':
      return `Video deleted or no longer public: “${before}”`;
    case 'visibility':
      return `${whose} is ${after} now (was ${before})`;
    case 'length':
      return `Video length: ${timeCode(Number(after))} (was ${timeCode(Number(before))})`;
    case 'tags':
      return `Post tags: ${after || 'none'} (were ${before || 'none'})`;
    case 'edited':
      return 'Post edited at the blog';
    default:
      return `${whose} ${changeNames[what]} changed`;
  }
}
