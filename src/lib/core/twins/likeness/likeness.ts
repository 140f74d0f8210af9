/** What two items have in common, in shares and sums of rarities. */
export interface Likeness {
  /** Rarities of the words that both titles have. */
  titles: number;
  /** Of the video's title: the share that stands in the post's title; and the other way. */
  titleInTitle: number;
  titleOfPost: number;
  /** Of the video's title: the share that stands in the post's title or tells its text; and the other way. */
  titleInPost: number;
  titleInVideo: number;
  /** Cosine of what both say, or NaN where one of them says next to nothing. */
  texts: number;
  /** Rarities of the names, and of the figures, that both tell. */
  names: number;
  figures: number;
  tags: number;
  /** Days from the video to the post, or NaN. */
  days: number;
  part: 'same' | 'other' | 'one' | 'none';
  language: 'same' | 'other' | 'unknown';
  samePicture: boolean;
}

export const noLikeness = (): Likeness => ({
  titles: 0,
  titleInTitle: 0,
  titleOfPost: 0,
  titleInPost: 0,
  titleInVideo: 0,
  texts: NaN,
  names: 0,
  figures: 0,
  tags: 0,
  days: NaN,
  part: 'none',
  language: 'unknown',
  samePicture: false
});

const PARTS = ['same', 'other', 'one', 'none'] as const;
const LANGUAGES = ['same', 'other', 'unknown'] as const;
/** Numbers of one likeness. */
const WIDTH = 13;

/** Likenesses of hundreds of thousands of pairs, as numbers: objects of them would take hundreds of megabytes. */
export class LikenessList {
  readonly #numbers: Float64Array;

  constructor(length: number) {
    this.#numbers = new Float64Array(length * WIDTH);
  }

  set(at: number, likeness: Likeness): void {
    const numbers = this.#numbers;
    let place = at * WIDTH;
    numbers[place++] = likeness.titles;
    numbers[place++] = likeness.titleInTitle;
    numbers[place++] = likeness.titleOfPost;
    numbers[place++] = likeness.titleInPost;
    numbers[place++] = likeness.titleInVideo;
    numbers[place++] = likeness.texts;
    numbers[place++] = likeness.names;
    numbers[place++] = likeness.figures;
    numbers[place++] = likeness.tags;
    numbers[place++] = likeness.days;
    numbers[place++] = PARTS.indexOf(likeness.part);
    numbers[place++] = LANGUAGES.indexOf(likeness.language);
    numbers[place] = Number(likeness.samePicture);
  }

  get(at: number): Likeness {
    const numbers = this.#numbers;
    let place = at * WIDTH;
    return {
      titles: numbers[place++]!,
      titleInTitle: numbers[place++]!,
      titleOfPost: numbers[place++]!,
      titleInPost: numbers[place++]!,
      titleInVideo: numbers[place++]!,
      texts: numbers[place++]!,
      names: numbers[place++]!,
      figures: numbers[place++]!,
      tags: numbers[place++]!,
      days: numbers[place++]!,
      part: PARTS[numbers[place++]!]!,
      language: LANGUAGES[numbers[place++]!]!,
      samePicture: numbers[place] === 1
    };
  }
}
