import type { Wordings } from '../wordings.ts';

export const ENGLISH_WORDINGS: Wordings = {
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
