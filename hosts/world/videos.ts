import type { Draft, SceneName } from './draft.ts';

/** The uploads of Wrenfold Loomworks. What is said in each stands in `speech/<id>.txt`. */

export interface WorldVideo {
  id: string;
  title: string;
  /** Title before it was changed, and how many days ago that was. */
  retitled?: { from: string; daysAgo: number };
  /** Days before the world begins; negative for what is yet to come. */
  daysAgo: number;
  hour: number;
  visibility: 'public' | 'unlisted' | 'private';
  description: string;
  tags: string[];
  category: string;
  language: string;
  author: string;
  licence: string;
  captions: 'edited' | 'rough' | 'none';
  /** Seconds, for a video in which nothing is said. */
  silentSeconds?: number;
  upright?: boolean;
  /** What its picture shows. */
  scene: SceneName;
  /** Id of the upload whose clip it shows, where it has none of its own. */
  clip?: string;
  /** Threading and treadling of the drawdown in its picture, and its two colours. */
  draft: Draft;
}

const TWILL = [
  [1, 1, 0, 0],
  [0, 1, 1, 0],
  [0, 0, 1, 1],
  [1, 0, 0, 1]
];
const PLAIN = [
  [1, 0, 1, 0],
  [0, 1, 0, 1],
  [1, 0, 1, 0],
  [0, 1, 0, 1]
];
const BROKEN = [
  [1, 1, 0, 0],
  [0, 0, 1, 1],
  [0, 1, 1, 0],
  [1, 0, 0, 1]
];
const STRAIGHT = [0, 1, 2, 3];
const POINT = [0, 1, 2, 3, 2, 1];
const ROSE = [0, 1, 2, 3, 0, 3, 2, 1, 0, 1, 0, 3, 2, 3];
const STUDIO = 'Wrenfold Loomworks';
const RESERVED = 'All rights reserved';
const CC_BY = 'https://creativecommons.org/licenses/by/4.0/';

export const videos: WorldVideo[] = [
  {
    id: 'indigo-vat-premiere',
    title: 'Indigo from leaf to vat',
    daysAgo: -4,
    hour: 18,
    visibility: 'public',
    description:
      'A premiere: we pick the leaves at six in the morning and have a blue skein by dusk. Watch it with us, and bring your questions about vats.',
    tags: ['indigo', 'natural dye', 'premiere'],
    category: 'Dyeing',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'none',
    silentSeconds: 75,
    scene: 'vat',
    draft: { threading: ROSE, tieUp: TWILL, treadling: ROSE, warp: '#e8edf2', weft: '#27427c' }
  },
  {
    id: 'threading-a-twill',
    title: 'Threading a four-shaft twill, slowly',
    daysAgo: 1,
    hour: 9,
    visibility: 'public',
    description:
      'A straight draw from the first heddle to the first picks, with every mistake made on purpose.\n\nThe draft, the tie-up and the yarn list are in the notebook: {blog}\n\nYarn: cotton 8/2, 192 ends, 8 to the centimetre.\n\n#weaving #twill #loom\nSubscribe so that you do not miss the next one!',
    tags: ['twill', 'threading', 'four shafts', 'weaving for beginners'],
    category: 'At the loom',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'loom',
    draft: {
      threading: STRAIGHT,
      tieUp: TWILL,
      treadling: STRAIGHT,
      warp: '#f2ead8',
      weft: '#8c3b2e'
    }
  },
  {
    id: 'straight-selvedges',
    title: 'Straight selvedges: five things that helped',
    daysAgo: 6,
    hour: 17,
    visibility: 'public',
    description:
      'The question I get most. There is no one trick, there are five small ones: the bobbin, the throw, the angle, the beat, and leaving it alone.',
    tags: ['selvedge', 'weaving tips'],
    category: 'At the loom',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'rough',
    scene: 'shuttle',
    draft: {
      threading: STRAIGHT,
      tieUp: PLAIN,
      treadling: STRAIGHT,
      warp: '#dfe7de',
      weft: '#4d6b57'
    }
  },
  {
    id: 'bobbin-in-forty-seconds',
    title: 'Wind a bobbin that never collapses',
    daysAgo: 9,
    hour: 12,
    visibility: 'public',
    description: 'Forty seconds that save an hour. #weaving #bobbin',
    tags: ['bobbin', 'short'],
    category: 'Short and upright',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    upright: true,
    scene: 'bobbin',
    draft: { threading: POINT, tieUp: TWILL, treadling: STRAIGHT, warp: '#f4e9d0', weft: '#b3742c' }
  },
  {
    id: 'studio-stream-heron-blanket',
    title: 'Studio stream: finishing the heron blanket',
    daysAgo: 13,
    hour: 19,
    visibility: 'public',
    description:
      'An hour at the loom: the last rounds of a double-width blanket, a thread that breaks, and the cutting off.\n\nThe post about our prices: {blog}posts/what-a-woven-metre-costs',
    tags: ['stream', 'double weave', 'blanket', 'wool'],
    category: 'Streams',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'blanket',
    draft: { threading: POINT, tieUp: TWILL, treadling: POINT, warp: '#c9d2d9', weft: '#52626f' }
  },
  {
    id: 'madder-with-juna',
    title: 'Madder red on wool, with Juna Halvard',
    daysAgo: 20,
    hour: 10,
    visibility: 'public',
    description:
      'Our guest Juna Halvard of Saltmarsh Dyes shows three reds from one pot. Her video, under a Creative Commons licence: credit her when you use it.\n\nAlum 15 %, cream of tartar 6 %, madder 100 % of the weight of the wool.',
    tags: ['madder', 'natural dye', 'guest'],
    category: 'Dyeing',
    language: 'en',
    author: 'Juna Halvard, Saltmarsh Dyes',
    licence: CC_BY,
    captions: 'edited',
    scene: 'skeins',
    draft: { threading: ROSE, tieUp: BROKEN, treadling: ROSE, warp: '#f3dcc7', weft: '#a8322a' }
  },
  {
    id: 'hemstitching',
    title: 'Hemstitching on the loom',
    daysAgo: 27,
    hour: 9,
    visibility: 'public',
    description:
      'A hem made while the warp is still tight. Groups of four threads, three picks deep.',
    tags: ['hemstitch', 'finishing'],
    category: 'Finishing',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'hem',
    draft: { threading: STRAIGHT, tieUp: PLAIN, treadling: POINT, warp: '#f6f1e7', weft: '#7a5a86' }
  },
  {
    id: 'quiet-weaving',
    title: 'Three minutes of quiet weaving',
    daysAgo: 34,
    hour: 7,
    visibility: 'public',
    description: 'No words. Rain on the skylight and a plain weave.',
    tags: ['quiet', 'no talking'],
    category: 'Quiet',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'none',
    silentSeconds: 184,
    scene: 'shuttle',
    draft: {
      threading: STRAIGHT,
      tieUp: PLAIN,
      treadling: STRAIGHT,
      warp: '#e3e0d8',
      weft: '#5b7a8c'
    }
  },
  {
    id: 'sleying-a-reed',
    title: 'Sleying a reed without crossed ends',
    retitled: { from: 'How I sley a reed', daysAgo: 12 },
    daysAgo: 41,
    hour: 9,
    visibility: 'public',
    description: 'Finding the middle, holding the cross, and what to do when you find a mistake.',
    tags: ['reed', 'sleying', 'warping'],
    category: 'At the loom',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'rough',
    scene: 'reed',
    draft: {
      threading: POINT,
      tieUp: BROKEN,
      treadling: STRAIGHT,
      warp: '#efe6da',
      weft: '#37506b'
    }
  },
  {
    id: 'winding-a-warp',
    title: 'Winding a warp on a board, start to finish',
    daysAgo: 48,
    hour: 9,
    visibility: 'public',
    description:
      'From the guide string to the chain, with the cross made plain.\n\nFour metres, 240 ends of cotton 8/2. The worksheet is in the notebook.',
    tags: ['warp', 'warping board', 'weaving for beginners'],
    category: 'At the loom',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'board',
    draft: { threading: ROSE, tieUp: TWILL, treadling: STRAIGHT, warp: '#f3e6c9', weft: '#a0522d' }
  },
  {
    id: 'class-tie-up',
    title: 'For the Tuesday class: tie-up of the countermarch',
    daysAgo: 52,
    hour: 20,
    visibility: 'unlisted',
    description: 'For the Tuesday class only. Please do not share it further.',
    tags: ['class'],
    category: 'Classes',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'draft',
    draft: {
      threading: STRAIGHT,
      tieUp: BROKEN,
      treadling: POINT,
      warp: '#e5e5e5',
      weft: '#444444'
    }
  },
  {
    id: 'why-warps-loosen',
    title: 'Why a warp loosens, and what to do about it',
    daysAgo: 62,
    hour: 9,
    visibility: 'public',
    description: 'Three reasons, and a cure for each of them. With a bulldog clip.',
    tags: ['tension', 'warp', 'questions'],
    category: 'At the loom',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'loom',
    draft: {
      threading: STRAIGHT,
      tieUp: BROKEN,
      treadling: STRAIGHT,
      warp: '#ece4d4',
      weft: '#6e4a35'
    }
  },
  {
    id: 'kette-aufbaeumen',
    title: 'Die Kette aufbäumen, ganz in Ruhe',
    daysAgo: 75,
    hour: 10,
    visibility: 'public',
    description:
      'Aufbäumen ohne Hilfe: mit Reedkamm, vier Wasserflaschen und Packpapier.\n\nMaterialliste im Notizbuch.',
    tags: ['Weben', 'Kette', 'Aufbäumen'],
    category: 'Auf Deutsch',
    language: 'de',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'board',
    draft: { threading: ROSE, tieUp: PLAIN, treadling: ROSE, warp: '#e9e2d0', weft: '#2f5d50' }
  },
  {
    id: 'reading-a-draft',
    title: 'Reading a weaving draft in six minutes',
    daysAgo: 90,
    hour: 9,
    visibility: 'public',
    description:
      'Threading, tie-up, treadling, drawdown: four parts, and you can read all of them.',
    tags: ['draft', 'drawdown', 'weaving for beginners'],
    category: 'Theory',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'edited',
    scene: 'draft',
    draft: { threading: POINT, tieUp: TWILL, treadling: POINT, warp: '#f5f2ea', weft: '#23395b' }
  },
  {
    id: 'camera-test',
    title: 'Camera test, do not publish',
    daysAgo: 3,
    hour: 22,
    visibility: 'private',
    description: 'Focus and white balance.',
    tags: [],
    category: 'Tests',
    language: 'en',
    author: STUDIO,
    licence: RESERVED,
    captions: 'none',
    silentSeconds: 20,
    scene: 'loom',
    draft: {
      threading: STRAIGHT,
      tieUp: PLAIN,
      treadling: STRAIGHT,
      warp: '#ffffff',
      weft: '#000000'
    }
  }
];

export const playlists = [
  {
    id: 'first-warp',
    title: 'Your first warp, in order',
    videos: [
      'winding-a-warp',
      'kette-aufbaeumen',
      'threading-a-twill',
      'sleying-a-reed',
      'why-warps-loosen'
    ]
  },
  { id: 'colour', title: 'Colour and dye', videos: ['madder-with-juna', 'indigo-vat-premiere'] }
];
