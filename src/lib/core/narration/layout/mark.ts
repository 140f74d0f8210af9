import type { Font } from '../fit.ts';
import type { Box } from '../frames.ts';

/**
 * How a mark comes and goes where a style moves: a line of text, a shape, something that grows along one
 * side, a number that counts up, a picture that is slowly moved. A mark without stays as it is.
 */
export type Move = 'line' | 'shape' | 'grow-x' | 'grow-y' | 'count' | 'picture';

/** What is painted, from the ground up. Coordinates and sizes are pixels of the frame. */
export type Mark = { move?: Move } & (
  | { kind: 'rect'; box: Box; colour: string; radius?: number }
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      font: Font;
      colour: string;
      align: 'start' | 'middle';
    }
  | { kind: 'picture'; url: string; box: Box; shown: 'contain' | 'cover' | 'moved' }
  | { kind: 'cells'; box: Box; rows: readonly (readonly boolean[])[]; colour: string }
);

/**
 * What is shown from a moment of the speech on: when so much of a line has been said. A mark that stays
 * from one stage to the next is the same object in both.
 */
export interface Stage {
  line: number;
  /** Between 0 and 1. */
  share: number;
  marks: Mark[];
}

export interface SceneLayout {
  stages: Stage[];
  /** Whether something moves all the time. */
  isMoving: boolean;
}
