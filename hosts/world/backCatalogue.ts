import type { Draft, SceneName } from './draft.ts';
import type { WorldPost } from './posts.ts';
import type { WorldVideo } from './videos.ts';

/**
 * What the studio made before it kept the two together: sixty small uploads and forty-five posts of five years, made by
 * code. Most posts tell of a video, but none shows or links one.
 */
export const BACK = { videos: 60, posts: 45 };

const THINGS: readonly (readonly [name: string, scene: SceneName])[] = [
  ['rag rug', 'blanket'],
  ['linen towel', 'hem'],
  ['silk scarf', 'shuttle'],
  ['wool blanket', 'blanket'],
  ['inkle band', 'shuttle'],
  ['double weave cushion', 'loom'],
  ['tapestry sample', 'skeins'],
  ['rosepath runner', 'draft'],
  ['overshot coverlet', 'draft'],
  ['krokbragd mat', 'loom'],
  ['waffle facecloth', 'reed'],
  ['huck lace curtain', 'reed']
];
const TASKS: readonly { doing: string; question: string; words: readonly string[] }[] = [
  {
    doing: 'Planning',
    question: 'How much yarn does % take?',
    words: [
      'take-up',
      'loom waste',
      'the shrinkage of the sample',
      'a pocket calculator',
      'one spare skein'
    ]
  },
  {
    doing: 'Beating',
    question: 'How hard do you beat %?',
    words: [
      'the swing of the beater',
      'an open shed',
      'picks per centimetre',
      'a strip of paper beside the cloth',
      'a metronome'
    ]
  },
  {
    doing: 'Colours for',
    question: 'Which colours suit %?',
    words: [
      'grey photographs',
      'a wrapped card',
      'the darkest yarn first',
      'daylight at noon',
      'madder beside weld'
    ]
  },
  {
    doing: 'Mending',
    question: 'Can you mend %?',
    words: [
      'a broken end',
      'the curved needle',
      'a weight on the floor',
      'the pattern from the back',
      'a knot that unties itself'
    ]
  },
  {
    doing: 'Washing',
    question: 'How do you wash %?',
    words: [
      'lukewarm water',
      'hardly any soap',
      'rolled in a towel',
      'steam from below',
      'a rack in the shade'
    ]
  },
  {
    doing: 'Selling',
    question: 'What is a fair price for %?',
    words: [
      'hours on a slip of paper',
      'the stall fee',
      'labels with care signs',
      'a reserved sign',
      'postage to the islands'
    ]
  }
];
const PEOPLE = ['Juna', 'Tamsin', 'old Mr Aldous', 'Perrin', 'the evening class'];
const TOWNS = ['Hollin Bridge', 'Saltmarsh', 'Fenwick Cross', 'Upper Lathe', 'Marlow Sands'];
const STRAIGHT = [0, 1, 2, 3];
const TWILL = [
  [1, 1, 0, 0],
  [0, 1, 1, 0],
  [0, 0, 1, 1],
  [1, 0, 0, 1]
];
const WARPS = ['#e9e2d0', '#f5f2ea', '#d8cbb2', '#cfd8d3', '#efe6e0'];
const WEFTS = ['#2f5d50', '#23395b', '#7d2e2e', '#8a5a2b', '#4b3b5c', '#5b6b2f', '#99563d'];
const NUMBERS = [7, 13, 17, 23, 29, 31, 37, 41, 43, 47, 53, 59, 61, 67, 71, 73, 79, 83, 89, 97];

interface Work {
  thing: string;
  scene: SceneName;
  task: (typeof TASKS)[number];
  n: number;
  person: string;
  town: string;
  figures: readonly [string, string];
}

/** The works one after the other, the oldest first; every thing meets every task once. */
function workAt(n: number): Work {
  const [thing, scene] = THINGS[n % THINGS.length]!;
  const task = TASKS[(n + Math.floor(n / THINGS.length)) % TASKS.length]!;
  const of = <T>(all: readonly T[], step: number): T => all[(n * step) % all.length]!;
  return {
    thing,
    scene,
    task,
    n,
    person: of(PEOPLE, 3),
    town: of(TOWNS, 2),
    figures: [`${of(NUMBERS, 7) + n} centimetres`, `${of(NUMBERS, 11) * 3} grams`]
  };
}

const withArticle = (thing: string) => `${/^[aeio]/.test(thing) ? 'an' : 'a'} ${thing}`;
const lower = (text: string) => text.replace(/^\p{Lu}/u, (c) => c.toLowerCase());
const daysAgo = (n: number) => 1900 - Math.round(n * 25.5) - (n % 4);

/** How titles were written changed over the years. */
function videoTitle({ thing, task, n, town }: Work): string {
  if (n % 15 < 4 && n >= 15 && n < 49)
    return `Slow project: ${seriesThing(n)}, part ${(n % 15) + 1}`;
  if (n < 20) return `${task.doing} ${withArticle(thing)}`;
  if (n < 40) return `Studio diary ${n - 11}: ${lower(task.doing)} ${withArticle(thing)}`;
  return n % 3 === 0
    ? `${task.doing} ${withArticle(thing)}, live from ${town}`
    : `${task.doing} ${withArticle(thing)} in ten minutes`;
}
const seriesThing = (n: number) => THINGS[Math.floor(n / 15) * 2]![0];

function postTitle(work: Work): string {
  const { thing, task, n } = work;
  if (videoTitle(work).startsWith('Slow project'))
    return videoTitle(work).replace('Slow project: ', 'A slow ');
  if (n < 20)
    return n % 2
      ? `${task.doing} ${withArticle(thing)}`
      : `${task.doing} ${withArticle(thing)}: notes and numbers`;
  return n % 2
    ? task.question.replace('%', withArticle(thing))
    : `${thing.replace(/^./, (c) => c.toUpperCase())}: ${task.words[n % 5]!} and other lessons`;
}

/** What is said in an upload, as `speak` reads it. */
export function backSpeech(n: number): string {
  const { thing, task, person, town, figures } = workAt(n);
  const [a, b, c, d, e] = task.words;
  return [
    `So, today is about ${lower(task.doing)} ${withArticle(thing)}. Let me begin with ${a}, because that is where I went wrong the first time.`,
    `If you leave out ${b} then you can do what you like afterwards. ${person} showed me that in ${town}, and I did not believe it.`,
    `On this one I measured ${figures[0]}, and on the scale it was ${figures[1]}. Write that down somewhere you will find it again.`,
    `Then there is ${c}. And when that is done, ${d}, which takes longer than you think.`,
    `People ask me in the shop whether it could be done faster. It could, and then it comes back within a year, and I would rather do it once. Somebody wrote to me last week that hers had gone wrong at exactly this place, so I will show it again from the other side.`,
    `I am not in a hurry today, as you can hear. The kettle is on, the cat has the good chair, and the light will be right until four. If you weave along, stop me here and come back when you are there.`,
    `The last thing is ${e}. That is all there is to it. Thank you for sitting with me.`
  ].join('\n\n');
}

/** The sixty uploads; every tenth has no captions. */
export function backVideos(): WorldVideo[] {
  return Array.from({ length: BACK.videos }, (_, n): WorldVideo => {
    const work = workAt(n);
    const draft: Draft = {
      threading: STRAIGHT,
      tieUp: TWILL,
      treadling: n % 2 ? STRAIGHT : [0, 1, 2, 3, 2, 1],
      warp: WARPS[n % WARPS.length]!,
      weft: WEFTS[n % WEFTS.length]!
    };
    return {
      id: `back-${n + 1}`,
      title: videoTitle(work),
      daysAgo: daysAgo(n),
      hour: 9 + (n % 9),
      visibility: 'public',
      description: [
        n % 3 === 0 ? '' : `${work.task.doing} ${withArticle(work.thing)}, with ${work.person}.`,
        'Everything we weave is written up in the Notebook, sooner or later.'
      ]
        .filter(Boolean)
        .join('\n\n'),
      tags: [work.thing, n % 2 ? 'weaving' : 'handweaving'],
      category: 'Studio',
      language: 'en',
      author: 'Wrenfold Loomworks',
      licence: 'All rights reserved',
      captions: n % 10 === 9 ? 'none' : n % 2 ? 'edited' : 'rough',
      silentSeconds: 95,
      scene: work.scene,
      draft,
      clip: 'quiet-weaving'
    };
  });
}

/** The forty-five posts: of thirty-eight uploads, of six things that were never filmed, and a look back. */
export function backPosts(): WorldPost[] {
  const told = Array.from({ length: BACK.videos }, (_, n) => n).filter(
    (n) => n % 3 !== 1 || n % 4 === 3
  );
  const written = told.slice(0, 38).map((n) => postOf(workAt(n)));
  const alone = Array.from({ length: 6 }, (_, i) => postOf(workAt(BACK.videos + i), true));
  const lookBack: WorldPost = {
    slug: 'back-look-back',
    title: 'Five years of weaving, one page',
    daysAgo: 380,
    status: 'published',
    categories: ['Studio'],
    summary: 'Everything we made, in one list.',
    content: `<p>Somebody asked what we did all this time.</p><ul>${told
      .slice(0, 14)
      .map((n) => `<li>${videoTitle(workAt(n))}</li>`)
      .join('')}</ul>`
  };
  return [...written, ...alone, lookBack];
}

function postOf(work: Work, isAlone = false): WorldPost {
  const { thing, task, n, person, town, figures } = work;
  const [a, b, c, d, e] = task.words;
  return {
    slug: `back-${n + 1}`,
    title: postTitle(work),
    // Most were written within days, some only when the loom was empty again.
    daysAgo:
      daysAgo(Math.min(n, BACK.videos - 1)) - (n % 7 === 5 ? 160 : 2 + (n % 9)) - (isAlone ? 3 : 0),
    status: 'published',
    categories: [n % 2 ? 'At the loom' : 'Studio', thing],
    summary: `${task.doing} ${withArticle(thing)}.`,
    content: [
      `<p>Anybody with ${withArticle(thing)} on the loom thinks of ${a} first, and that is right. What comes second is ${b}, and without it the rest is wasted.</p>`,
      `<p>Ours came to ${figures[0]} and ${figures[1]}. ${person} had other numbers in ${town}, with the same reed.</p>`,
      `<h2>What to mind</h2><p>Take your time over ${c}, and more of it over ${d}. In the end it is ${e} that people see.</p>`
    ].join('\n')
  };
}
