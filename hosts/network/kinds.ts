/** One of the places where short updates are told. Each has limits and a look of its own. */
export interface NetworkKind {
  /** First part of its address. */
  path: string;
  name: string;
  about: string;
  limits: {
    text: number;
    linkWeight: number | null;
    title: number | null;
    picture: 'required' | 'optional' | 'none';
    pictureShape: number | null;
    hashtags: number;
    hashtagStyle: 'joined' | 'capitals';
    hasButton: boolean;
    poll: { question: number; option: number; most: number } | null;
    hasQuiz: boolean;
    /** Several updates may follow each other as one. */
    hasThreads: boolean;
    /** Moving pictures: how long and how large, and of which types. */
    clip: { seconds: number; bytes: number; types: string[] } | null;
    shownInStream: number;
    /** Updates that may be placed in a day. */
    aDay: number;
  };
}

/** The keys the networks know, and what each may do. They are public: this is a rehearsal. */
export const UPDATE_KEYS: Record<string, string[]> = {
  'wrenfold-updates-key': ['create', 'update', 'delete', 'media']
};

const CLIPS = ['video/webm', 'video/mp4'];
const MEGABYTE = 1_000_000;

export const NETWORKS: readonly NetworkKind[] = [
  {
    path: 'followers',
    name: 'Wrenfold Loomworks: followers',
    about: 'What the channel tells those who follow it.',
    limits: {
      text: 800,
      linkWeight: null,
      title: null,
      picture: 'optional',
      pictureShape: null,
      hashtags: 3,
      hashtagStyle: 'joined',
      hasButton: false,
      poll: { question: 300, option: 65, most: 5 },
      hasQuiz: true,
      hasThreads: false,
      clip: { seconds: 60, bytes: 50 * MEGABYTE, types: CLIPS },
      shownInStream: 160,
      aDay: 12
    }
  },
  {
    path: 'notes',
    name: 'Hearthside Notes',
    about: 'Short notes among neighbours.',
    limits: {
      text: 500,
      linkWeight: 23,
      title: null,
      picture: 'optional',
      pictureShape: null,
      hashtags: 5,
      hashtagStyle: 'capitals',
      hasButton: false,
      poll: { question: 400, option: 50, most: 4 },
      hasQuiz: false,
      hasThreads: true,
      clip: { seconds: 45, bytes: 20 * MEGABYTE, types: CLIPS },
      shownInStream: 240,
      aDay: 30
    }
  },
  {
    path: 'pictures',
    name: 'Gallery in the Loft',
    about: 'Pictures of what was made, and a few words to each.',
    limits: {
      text: 2200,
      linkWeight: null,
      title: null,
      picture: 'required',
      pictureShape: 1,
      hashtags: 12,
      hashtagStyle: 'joined',
      hasButton: false,
      poll: null,
      hasQuiz: false,
      hasThreads: false,
      clip: { seconds: 90, bytes: 60 * MEGABYTE, types: CLIPS },
      shownInStream: 110,
      aDay: 10
    }
  },
  {
    path: 'pages',
    name: 'Market Street Pages',
    about: 'Workshops and shops tell what is new.',
    limits: {
      text: 5000,
      linkWeight: null,
      title: 120,
      picture: 'optional',
      pictureShape: 1.8,
      hashtags: 2,
      hashtagStyle: 'capitals',
      hasButton: true,
      poll: null,
      hasQuiz: false,
      hasThreads: false,
      clip: null,
      shownInStream: 300,
      aDay: 20
    }
  }
];
