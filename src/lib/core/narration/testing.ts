import type { Measure } from './fit.ts';

/** Widths like those of a wide typeface, for tests that have no canvas. */
export const roughMeasure: Measure = (text, { size, weight }) =>
  [...text].reduce((sum, c) => {
    const em = /[\u1100-\u9fff\uac00-\ud7af\p{Extended_Pictographic}]/u.test(c)
      ? 1.02
      : /[iljt.,:;'!|\s]/.test(c)
        ? 0.32
        : /[mwMW@%—]/.test(c)
          ? 0.95
          : /\p{M}/u.test(c)
            ? 0
            : /\p{Lu}/u.test(c)
              ? 0.72
              : 0.58;
    return sum + em * size * (weight > 600 ? 1.06 : 1);
  }, 0);
