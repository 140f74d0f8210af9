/** How an update sounds. */
export const MANNERS = ['plain', 'warm', 'brisk'] as const;
export type Manner = (typeof MANNERS)[number];

interface Wordings {
  /** Before the title; empty wordings leave it as it is. */
  opening: Record<Manner, Record<'post' | 'video', readonly string[]>>;
  /** Before the link. */
  close: Record<Manner, Record<'post' | 'video', readonly string[]>>;
}

const ENGLISH: Wordings = {
  opening: {
    plain: { post: [''], video: [''] },
    warm: {
      post: ['Fresh from the notebook: ', 'We wrote something down for you: ', 'New to read: '],
      video: ['Fresh from the workshop: ', 'We filmed something for you: ', 'New to watch: ']
    },
    brisk: { post: [''], video: [''] }
  },
  close: {
    plain: {
      post: ['Read more:', 'The whole post:', 'Read it here:'],
      video: ['Watch it here:', 'The whole video:', 'Watch:']
    },
    warm: {
      post: ['Do come and read it:', 'It is all here for you:', 'Read it over a cup of tea:'],
      video: ['Do come and watch:', 'It is all here for you:', 'Watch it over a cup of tea:']
    },
    brisk: { post: ['Read:', 'Post:'], video: ['Watch:', 'Video:'] }
  }
};

const GERMAN: Wordings = {
  opening: {
    plain: { post: [''], video: [''] },
    warm: {
      post: ['Frisch aufgeschrieben: ', 'Neu zu lesen: '],
      video: ['Frisch gefilmt: ', 'Neu zu sehen: ']
    },
    brisk: { post: [''], video: [''] }
  },
  close: {
    plain: {
      post: ['Weiterlesen:', 'Der ganze Beitrag:'],
      video: ['Ansehen:', 'Das ganze Video:']
    },
    warm: {
      post: ['Lest gern weiter:', 'Hier steht alles:'],
      video: ['Schaut gern hinein:', 'Hier ist alles zu sehen:']
    },
    brisk: { post: ['Lesen:', 'Beitrag:'], video: ['Ansehen:', 'Video:'] }
  }
};

/** Other languages: the item's own words and its link, nothing added. */
const nothing = { post: [''], video: [''] };
const NONE: Wordings = {
  opening: { plain: nothing, warm: nothing, brisk: nothing },
  close: { plain: nothing, warm: nothing, brisk: nothing }
};

export function wordingsFor(language: string): Wordings {
  const code = language.toLowerCase().split(/[-_]/)[0];
  return code === 'en' ? ENGLISH : code === 'de' ? GERMAN : NONE;
}
