import type { Wordings } from '../wordings.ts';

export const GERMAN_WORDINGS: Wordings = {
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
