import { proposePolls } from '../../src/lib/core/updates/poll.ts';
import { proposeQuiz } from '../../src/lib/core/updates/quiz.ts';
import judged from './quizJudged.json' with { type: 'json' };
import { report } from './report.ts';
import { demoSources } from './sources.ts';

const LIMITS = { question: 300, option: 65, most: 4 };
/** Judged by hand once they were made: whether the question can be answered from the item, by one option and no other. */
const JUDGED: Readonly<Record<string, string>> = judged;

/** How sound the quizzes are that the demo items give, by judgements made by hand. */
export function benchQuiz(): void {
  let [sound, known, twoRight, items, polls, badPolls] = [0, 0, 0, 0, 0, 0];
  const sources = demoSources();
  for (const source of sources) {
    const { questions } = proposeQuiz(source, LIMITS);
    if (questions.length > 0) items++;
    for (const { question } of questions) {
      const verdict = JUDGED[question];
      if (verdict === undefined) continue;
      known++;
      if (verdict === 'sound') sound++;
      if (verdict === 'two right') twoRight++;
    }
    for (const { options } of proposePolls(source, { ...LIMITS, most: 5 })) {
      polls++;
      if (new Set(options.map((o) => o.toLowerCase())).size < options.length) badPolls++;
    }
  }
  const all = sources.reduce((n, s) => n + proposeQuiz(s, LIMITS).questions.length, 0);
  report(
    `Quiz questions of ${items} of the ${sources.length} demo items that were judged sound by hand`,
    'at least 90 %, none with two right, at least one for half of the items',
    `${sound} of ${known} judged (${((100 * sound) / Math.max(1, known)).toFixed(0)} %), ${twoRight} with two right; ${all - known} of ${all} not judged`,
    items * 2 >= sources.length && sound / known >= 0.9 && twoRight === 0 && known === all
  );
  report(
    `Polls of the ${sources.length} demo items: options distinct`,
    'all',
    `${polls - badPolls} of ${polls}`,
    badPolls === 0
  );
}
