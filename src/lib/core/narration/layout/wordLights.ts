import type { Measure } from '../fit.ts';
import type { Frame } from '../frames.ts';
import { contrast, mix, TEXT_CONTRAST, textOn, type Style } from '../styles.ts';
import type { TimedLine } from '../timeLine.ts';
import { LIGHTS_ROOM } from './grounds.ts';
import type { Mark } from './mark.ts';
import { FAMILIES } from './setting.ts';

/** A few words at the foot of the card from a moment on, one of them lit. */
export interface Light {
  /** Seconds of the video. */
  at: number;
  marks: Mark[];
}

/** Size of type, as a share of the shorter side. */
const SIZE = { wide: 0.062, upright: 0.072, square: 0.066 } as const;
const WEIGHT = 700;
/** A row is not fuller than this share of its room, and words in it at most. */
const FULL = 0.92;
const MOST_WORDS = 6;
/** Room between two words, in spaces: the box of the lit one leaves its neighbours free. */
const SPACE = 1.6;

/**
 * The words of a line as they are said, a row of them at a time at the foot of the card, the one that is
 * being said lit by a box in the accent. One row never leaves the frame's room for text.
 */
export function lightsOf(line: TimedLine, frame: Frame, style: Style, measure: Measure): Light[] {
  const family = style.font
    ? `"${style.font}", ${FAMILIES[style.typeface]}`
    : FAMILIES[style.typeface];
  const words = line.text.split(/\s+/).filter(Boolean);
  const room = frame.room.width * FULL;
  const base = Math.round(Math.min(frame.width, frame.height) * SIZE[frame.name]);
  const setting = { family, frame, style, measure };
  return rowsOf(
    words,
    (text) => measure(text, { family, weight: WEIGHT, size: base }),
    room
  ).flatMap(({ from, to }) =>
    Array.from({ length: to - from }, (_, i): Light => ({
      at: line.words[from + i] ?? line.start,
      marks: rowMarks(words.slice(from, to), i, base, room, setting)
    }))
  );
}

/** Words in rows that fit, ended at a comma or a stop where one is near. */
function rowsOf(
  words: readonly string[],
  measure: (text: string) => number,
  room: number
): { from: number; to: number }[] {
  const rows: { from: number; to: number }[] = [];
  let from = 0;
  for (let i = 1; i <= words.length; i++) {
    const isFull =
      i < words.length &&
      (i - from >= MOST_WORDS || measure(words.slice(from, i + 1).join(' ')) > room);
    const isAtMark = i - from >= 3 && /[,;:.!?–—]["”’]?$/.test(words[i - 1] ?? '');
    if (i === words.length || isFull || isAtMark) {
      rows.push({ from, to: i });
      from = i;
    }
  }
  return rows.filter((row) => row.to > row.from);
}

function rowMarks(
  words: readonly string[],
  lit: number,
  base: number,
  room: number,
  {
    family,
    frame,
    style,
    measure
  }: { family: string; frame: Frame; style: Style; measure: Measure }
): Mark[] {
  const widthAt = (text: string, size: number) => measure(text, { family, weight: WEIGHT, size });
  // A word wider than the room by itself is set smaller.
  const whole = widthAt(words.join(' '), base) + widthAt(' ', base) * (SPACE - 1) * words.length;
  const size = whole > room ? Math.max(1, Math.floor((base * room) / whole)) : base;
  const space = widthAt(' ', size) * SPACE;
  const widths = words.map((word) => widthAt(word, size));
  const width = widths.reduce((a, b) => a + b, 0) + space * (words.length - 1);
  const height = Math.round(frame.height * LIGHTS_ROOM[frame.name]);
  const middle = frame.height - Math.round(frame.height * 0.05) - height / 2;
  const pad = Math.round(size * 0.3);
  let x = frame.width / 2 - width / 2;
  const ground = backOf(style);
  const back: Mark = {
    kind: 'rect',
    box: { x: x - pad * 2, y: middle - size * 0.85, width: width + pad * 4, height: size * 1.7 },
    colour: ground,
    radius: pad
  };
  const marks: Mark[] = [back];
  for (const [i, text] of words.entries()) {
    const isLit = i === lit;
    if (isLit)
      marks.push({
        kind: 'rect',
        box: {
          x: x - pad * 0.6,
          y: middle - size * 0.65,
          width: widths[i]! + pad * 1.2,
          height: size * 1.3
        },
        colour: style.accent,
        radius: pad * 0.6
      });
    marks.push({
      kind: 'text',
      text,
      x,
      y: Math.round(middle + size * 0.35),
      font: { family, weight: WEIGHT, size },
      colour: textOn(isLit ? style.accent : ground),
      align: 'start'
    });
    x += widths[i]! + space;
  }
  return marks;
}

/** What the words stand on: darker or lighter than the card, so that it is seen as a thing of its own. */
function backOf({ ground }: Style): string {
  const away = textOn(ground) === '#ffffff' ? '#000000' : '#ffffff';
  const back = mix(ground, away, 0.45);
  return contrast(back, textOn(back)) >= TEXT_CONTRAST ? back : away;
}
