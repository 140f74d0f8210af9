import { execFileSync } from 'node:child_process';
import { extractArticle } from '../../src/lib/core/article/extract/extract.ts';
import { readTalk } from '../../src/lib/core/text/talk.ts';
import { anItem } from '../../src/lib/core/testing.ts';
import { proposePairs } from '../../src/lib/core/twins/likeness/propose.ts';
import { thinned } from '../train/catalogue/harder.ts';
import { judge, toldIn, type Judged } from '../train/catalogue/judge.ts';
import {
  heldOutBare,
  heldOutCatalogues,
  heldOutMixtures,
  heldOutOwnWords,
  heldOutSmallChannels,
  heldOutThinned,
  heldOutUnnumbered,
  largeCatalogue,
  sixStyles
} from '../train/catalogue/sets.ts';
import { WRITTEN, writtenCatalogue } from '../train/catalogue/written.ts';
import { captionsAs } from '../train/speech.ts';
import { median, ms, report } from './report.ts';
import { heldOut } from './speech.ts';

type Shares = Pick<Judged, 'precision' | 'recall' | 'withDoubtful'>;
const shares = ({ precision, recall, withDoubtful }: Shares) =>
  `precision ${precision.toFixed(3)}, recall ${recall.toFixed(3)}, with the doubtful ${withDoubtful.toFixed(3)}`;

function meanOf(judged: readonly Judged[]): Shares {
  const mean = (of: (one: Judged) => number) =>
    judged.reduce((sum, one) => sum + of(one), 0) / judged.length;
  return {
    precision: mean((c) => c.precision),
    recall: mean((c) => c.recall),
    withDoubtful: mean((c) => c.withDoubtful)
  };
}

/** Videos and posts that tell the same: how many are found, and how fast among many. */
export function benchPairs(): void {
  const judged = judge(sixStyles().heldOut);
  report(
    'Pairs by likeness, 300 videos and 250 posts of three crafts that nothing was learned from',
    'precision 0.99, recall 0.93; with the doubtful 0.98',
    shares(judged),
    judged.precision >= 0.99 && judged.recall >= 0.93 && judged.withDoubtful >= 0.98
  );

  for (const [what, catalogues] of [
    ['ten such mixtures', heldOutMixtures()],
    ['eleven single channels, 100 videos and 83 posts each', heldOutCatalogues()],
    ['sixty small channels, 8 to 40 videos each', heldOutSmallChannels()],
    ['the mixtures and single channels with half of all twins torn apart', heldOutThinned()],
    ['the mixtures and single channels without captions, every other without dates', heldOutBare()],
    [
      'the mixtures and single channels, parts of half of the series numbered on one side only',
      heldOutUnnumbered()
    ],
    [
      'the mixtures, single and small channels, posts in other words than what was filmed',
      heldOutOwnWords()
    ],
    [
      'four channels written by hand, with few captions or none, one of them with its posts in another language, 74 twins',
      WRITTEN.map(writtenCatalogue)
    ],
    [
      'these four with half of all twins torn apart, eight times each',
      WRITTEN.flatMap((name) =>
        Array.from({ length: 8 }, (_, i) => thinned(writtenCatalogue(name), 1 + i))
      )
    ]
  ] as const) {
    const means = meanOf(catalogues.map((catalogue) => judge(catalogue)));
    report(
      `The same of ${what}, the mean`,
      'precision 0.99, recall 0.93; with the doubtful 0.98',
      shares(means),
      means.precision >= 0.99 && means.recall >= 0.93 && means.withDoubtful >= 0.98
    );
  }

  // Talks by others, and articles drawn from them under the title of their last chapter.
  const talks = heldOut();
  const videos = talks.map(({ labelled }) => ({
    item: anItem({
      id: `v ${labelled.name}`,
      kind: 'video',
      title: labelled.title,
      published: null
    }),
    text: labelled.words.map((word) => word.text).join(' ')
  }));
  const posts = talks.map(({ labelled, judge }) => {
    const talk = readTalk(captionsAs(labelled, 'clean'));
    const { body } = extractArticle(talk, { length: 'short', chapters: [], judge });
    const text = body.flatMap((block) =>
      block.kind === 'paragraph' ? block.sentences.map((sentence) => sentence.text) : []
    );
    const title = labelled.chapters.at(-1)?.title ?? labelled.title;
    return {
      item: anItem({ id: `p ${labelled.name}`, kind: 'post', title, published: null }),
      text: text.join(' ')
    };
  });
  const proposals = proposePairs(videos, posts, { refused: new Set() });
  const isRight = (p: { video: string; post: string }) => p.video.slice(2) === p.post.slice(2);
  const sure = proposals.filter((p) => p.isSure);
  const right = sure.filter(isRight).length;
  report(
    `Pairs by likeness, ${talks.length} unscripted talks and short articles of them under other titles, without dates`,
    'precision 0.99, recall 0.93',
    `precision ${(right / (sure.length || 1)).toFixed(3)}, recall ${(right / talks.length).toFixed(3)}`,
    right >= 0.99 * sure.length && right >= 0.93 * talks.length
  );

  const many = toldIn(largeCatalogue(10_000));
  const times = Array.from({ length: 3 }, () => {
    const from = performance.now();
    proposePairs(...many, { refused: new Set() });
    return performance.now() - from;
  });
  const held = Number(
    execFileSync(
      process.execPath,
      ['--max-old-space-size=300', '--import', 'tsx', 'bin/bench/pairsInLittle.ts'],
      { encoding: 'utf8' }
    )
  );
  report(
    '10,000 videos and 10,000 posts paired by likeness, on Node; what a process holds that does nothing else',
    'under 3 s, under 400 MB',
    `${ms(median(times))}; ${held} MB with Node itself and all texts`,
    median(times) < 3000 && held < 400
  );
}
