import { fitText, type Fitted, type Measure } from '../fit.ts';
import type { Box, Frame } from '../frames.ts';
import { contrast, mix, TEXT_CONTRAST, textOn, type Style, type Typeface } from '../styles.ts';
import type { Mark } from './mark.ts';

/** The shipped fonts behind the typefaces; what they lack, the system's fonts show. */
export const FAMILIES: Readonly<Record<Typeface, string>> = {
  sans: '"Atkinson Hyperlegible Next Variable", sans-serif',
  serif: '"Literata Variable", serif',
  mono: '"JetBrains Mono Variable", monospace'
};

/** All that the layout of one card goes by. */
export interface Setting {
  frame: Frame;
  style: Style;
  measure: Measure;
  ink: string;
  ground: string;
  /** What is less important, and still easy to read. */
  quiet: string;
  family: string;
  /** Where the text of the card stands. */
  box: Box;
  /** How lines stand in their box: centred in some styles, at the foot in another. */
  align: 'start' | 'middle';
  stand: 'middle' | 'bottom';
}

/** Text and its room, line by line. */
export const LINE_HEIGHT = 1.28;

export const inset = (box: Box, by: number): Box => ({
  x: box.x + by,
  y: box.y + by,
  width: box.width - 2 * by,
  height: box.height - 2 * by
});

/** Pixels of the shorter side of a frame. */
export const shorterSide = ({ frame }: Setting): number => Math.min(frame.width, frame.height);

/** Whether things stand beside each other rather than one above the other. */
export const isWide = ({ frame }: Setting): boolean => frame.width > frame.height;

/** Divides a box in two, with a gap between, along its width or its height. */
export function divided(box: Box, along: 'x' | 'y', share: number, gap: number): [Box, Box] {
  if (along === 'x') {
    const width = Math.round((box.width - gap) * share);
    return [
      { ...box, width },
      { ...box, x: box.x + width + gap, width: box.width - width - gap }
    ];
  }
  const height = Math.round((box.height - gap) * share);
  return [
    { ...box, height },
    { ...box, y: box.y + height + gap, height: box.height - height - gap }
  ];
}

/** @param largest size of type at most, as a share of the shorter side */
export function fit(
  text: string,
  box: Box,
  setting: Setting,
  weight: number,
  largest: number
): Fitted {
  const { frame, family, measure } = setting;
  return fitText(
    text,
    {
      width: box.width,
      height: box.height,
      family,
      weight,
      largest: Math.max(frame.smallestType, Math.round(shorterSide(setting) * largest)),
      smallest: frame.smallestType,
      lineHeight: LINE_HEIGHT
    },
    measure
  );
}

export interface Placing {
  weight: number;
  colour: string;
  align?: 'start' | 'middle';
  /** Where the lines stand in their box. */
  stand?: 'top' | 'middle' | 'bottom';
  family?: string;
}

/** Lines of text as marks, from the top of their box, in its middle or at its foot. */
export function textMarks(
  lines: readonly string[],
  { size, lineHeight }: Pick<Fitted, 'size' | 'lineHeight'>,
  box: Box,
  setting: Setting,
  placing: Placing
): Mark[] {
  const step = size * lineHeight;
  const free = box.height - lines.length * step;
  const stand = placing.stand ?? setting.stand;
  const top = box.y + { top: 0, middle: free / 2, bottom: free }[stand];
  const align = placing.align ?? setting.align;
  return lines.map((text, i) => ({
    kind: 'text',
    move: 'line',
    text,
    x: align === 'middle' ? box.x + box.width / 2 : box.x,
    // The baseline: type hangs about three quarters of its size above it.
    y: Math.round(top + i * step + step / 2 + size * 0.35),
    font: { family: placing.family ?? setting.family, weight: placing.weight, size },
    colour: placing.colour,
    align
  }));
}

/** One line of a small text: cut with dots where it is too long. */
export function clipped(text: string, width: number, setting: Setting): string {
  const { family, frame, measure } = setting;
  const font = { family, weight: 500, size: frame.smallestType };
  if (measure(text, font) <= width) return text;
  const letters = [...text];
  while (letters.length > 1 && measure(`${letters.join('')}…`, font) > width) letters.pop();
  return `${letters.join('').trimEnd()}…`;
}

/** A small line at the top of its box. */
export const smallLine = (
  text: string,
  box: Box,
  setting: Setting,
  align?: 'start' | 'middle'
): Mark[] =>
  text
    ? textMarks(
        [clipped(text, box.width, setting)],
        { size: setting.frame.smallestType, lineHeight: LINE_HEIGHT },
        box,
        setting,
        { weight: 500, colour: setting.quiet, stand: 'top', ...(align ? { align } : {}) }
      )
    : [];

/** Height of a small line with its gap. */
export const smallHeight = ({ frame }: Setting): number =>
  Math.ceil(frame.smallestType * LINE_HEIGHT);

/** A short thick line in the accent, which grows as it comes. */
export const rule = (
  x: number,
  y: number,
  width: number,
  height: number,
  { style }: Setting
): Mark => ({
  kind: 'rect',
  move: 'grow-x',
  box: { x: Math.round(x), y: Math.round(y), width: Math.round(width), height },
  colour: style.accent
});

export const settingFor = (
  base: Omit<Setting, 'ink' | 'quiet' | 'family'>,
  family: string
): Setting => {
  const ink = textOn(base.ground);
  const quiet = mix(ink, base.ground, 0.12);
  const isLegible = contrast(quiet, base.ground) >= TEXT_CONTRAST;
  return { ...base, ink, quiet: isLegible ? quiet : ink, family };
};
