import type { Relation } from '$lib/core/model/tie.ts';
import type { Reason } from '$lib/core/twins/likeness/reasons.ts';
import { plural } from '$lib/ui/messages.ts';

export const relationLabels: Record<Relation, string> = {
  twin: 'One video, one post',
  'several-videos': 'The post is about several videos',
  'several-posts': 'The video has several posts',
  'part-of': 'One is part of the other'
};

const names = new Intl.DisplayNames('en', { type: 'language' });
const languageName = (code: string): string =>
  code === 'und' ? 'unknown' : (names.of(code) ?? code);
const listed = (words: readonly string[]) => words.map((word) => `“${word}”`).join(', ');
const percent = (share: number) => `${Math.round(share * 100)} %`;

/** What speaks for a pair or against it, in a few words. */
export function reasonText(reason: Reason): string {
  switch (reason.kind) {
    case 'same-title':
      return 'Same title';
    case 'title-words':
      return `Both titles have ${listed(reason.words)}`;
    case 'title-in-text':
      return reason.side === 'post'
        ? 'The video’s title is in the post'
        : 'The post’s title is in the video';
    case 'texts':
      return `Texts are ${percent(reason.alike)} alike`;
    case 'names':
      return `Both mention ${listed(reason.words)}`;
    case 'words':
      return `Both say ${listed(reason.words)}`;
    case 'figures':
      return `Both have the ${reason.words.length === 1 ? 'number' : 'numbers'} ${reason.words.join(', ')}`;
    case 'tags':
      return `Same ${reason.words.length === 1 ? 'tag' : 'tags'}: ${reason.words.join(', ')}`;
    case 'same-picture':
      return 'Same picture';
    case 'days': {
      const days = Math.round(Math.abs(reason.days));
      if (days === 0) return 'Published the same day';
      const span =
        days > 60 ? plural(Math.round(days / 30), 'month', 'months') : plural(days, 'day', 'days');
      return `Post published ${span} ${reason.days > 0 ? 'after' : 'before'} the video`;
    }
    case 'same-part':
      return `Both are part ${reason.part}`;
    case 'other-part':
      return `Part ${reason.video} and part ${reason.post}`;
    case 'little-in-common':
      return 'Texts have little in common';
    case 'other-language':
      return `Video in ${languageName(reason.video)}, post in ${languageName(reason.post)}`;
    case 'rival':
      return reason.side === 'post' ? 'Another post is as close' : 'Another video is as close';
  }
}
