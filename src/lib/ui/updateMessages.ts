import type { Form, Shown } from '$lib/core/updates/draft.ts';
import type { NoQuizReason } from '$lib/core/updates/quiz.ts';
import type { VersionProblem } from '$lib/core/updates/version.ts';
import type { Manner } from '$lib/core/lang/wordings.ts';
import type { PublishedUpdate } from '$lib/data/publishedUpdates.ts';
import { plural, formatDate } from './messages.ts';

export const formLabels: Record<Form, string> = { text: 'Short text', poll: 'Poll', quiz: 'Quiz' };
export const mannerLabels: Record<Manner, string> = {
  plain: 'Plain',
  warm: 'Warm',
  brisk: 'Brisk'
};

export const shownLabels: Record<Shown, string> = {
  picture: 'The picture of the item',
  card: 'A quotation as a picture',
  clip: 'A clip of your own',
  nothing: 'Nothing'
};

export const noQuizLabels: Record<NoQuizReason, string> = {
  language: 'Quizzes are made from English text only. You can write one yourself.',
  'nothing-stated':
    'Nothing in this text can be asked for: no amount, no term that is explained, no numbered steps, no reasons. You can write a quiz yourself.',
  'too-unsure':
    'What could be asked here is not sure enough to be sound, so nothing is proposed. You can write a quiz yourself.',
  'too-long': 'What could be asked here is too long for a quiz. You can write one yourself.'
};

export const publishedMessage = ({ form, place, at }: PublishedUpdate): string =>
  `${formLabels[form]} at ${place || 'a disconnected place'}, ${formatDate(at)}`;

const over = (by: number) => plural(by, 'character', 'characters');

export function versionMessage(problem: VersionProblem): string {
  switch (problem.kind) {
    case 'no-text':
      return 'There is no text yet.';
    case 'too-long':
      return `${over(problem.by)} too long for this place.`;
    case 'too-many-hashtags':
      return `${plural(problem.by, 'hashtag', 'hashtags')} too many for this place.`;
    case 'picture-needed':
      return 'This place takes no update without a picture, and the item has none.';
    case 'picture-without-text':
      return 'The picture needs a text alternative.';
    case 'no-clips-here':
      return 'This place takes no clips.';
    case 'clip-missing':
      return 'Choose a clip, or show something else.';
    case 'clip-long':
      return `The clip is too long: this place takes ${problem.most} seconds.`;
    case 'clip-large':
      return `The clip is too large: this place takes ${Math.round(problem.most / 1_000_000)} MB.`;
    case 'clip-type':
      return `This place does not take clips of the type ${problem.type || 'of this file'}.`;
    case 'no-polls-here':
      return 'This place has no polls.';
    case 'no-quizzes-here':
      return 'This place has no quizzes.';
    case 'question-long':
      return `The question is ${over(problem.by)} too long for this place.`;
    case 'option-long':
      return `Option ${problem.option + 1} is ${over(problem.by)} too long for this place.`;
    case 'option-empty':
      return `Option ${problem.option + 1} is empty.`;
    case 'options-alike':
      return 'Two options are the same.';
    case 'too-few-options':
      return 'At least two options are needed.';
    case 'too-many-options':
      return `${plural(problem.by, 'option', 'options')} too many for this place.`;
    case 'not-one-right':
      return 'Mark the one answer that is right.';
  }
}
