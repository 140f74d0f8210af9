import { z } from 'zod';

/** Typefaces that ship with the application. */
export const typefaceSchema = z.enum(['sans', 'serif', 'mono']);
export type Typeface = z.infer<typeof typefaceSchema>;

/**
 * How the cards look: a margin of woven threads, a band behind the text, a sheet of paper, a panel of
 * colour beside the text, large type at the foot of the card, a fine line around it.
 */
export const styleNameSchema = z.enum(['margin', 'band', 'sheet', 'panel', 'poster', 'line']);
export type StyleName = z.infer<typeof styleNameSchema>;

const colour = z.string().regex(/^#[0-9a-f]{6}$/i);

export const styleSchema = z.object({
  name: styleNameSchema.default('margin'),
  ground: colour.default('#15232d'),
  accent: colour.default('#e08a5b'),
  typeface: typefaceSchema.default('serif'),
  /** A typeface of the user's own instead: the name of a kept font file, or empty. */
  font: z.string().default(''),
  /** Scenes come and go with moves, or stand still. */
  motion: z.enum(['moving', 'calm']).default('moving'),
  /** Whether words light up at the foot of the card as they are said. */
  wordLights: z.boolean().default(false),
  /** Who speaks, shown on the first card after the title: a name and a line beneath, or empty. */
  lowerThird: z.object({ name: z.string(), line: z.string() }).default({ name: '', line: '' }),
  /** The user's own mark: the name of a kept picture, or empty. */
  mark: z.string().default('')
});
export type Style = z.infer<typeof styleSchema>;

const channel = (value: number): number => {
  const c = value / 255;
  return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
};

/** Relative luminance of `#rrggbb`, as WCAG 2.2 defines it. */
export function luminance(hex: string): number {
  const n = Number.parseInt(hex.slice(1), 16);
  const [r, g, b] = [(n >> 16) & 255, (n >> 8) & 255, n & 255];
  return 0.2126 * channel(r) + 0.7152 * channel(g) + 0.0722 * channel(b);
}

/** Contrast ratio of two colours, from 1 to 21 (WCAG 2.2, 1.4.3). */
export function contrast(a: string, b: string): number {
  const [dark, light] = [luminance(a), luminance(b)].sort((x, y) => x - y) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

export const TEXT_CONTRAST = 4.5;
export const GRAPHIC_CONTRAST = 3;
const [INK, PAPER] = ['#11161a', '#ffffff'];

/** What is easiest to read on a ground: ink or paper, and black where neither has 4.5 to 1. */
export function textOn(ground: string): string {
  const better = contrast(ground, INK) >= contrast(ground, PAPER) ? INK : PAPER;
  return contrast(ground, better) >= TEXT_CONTRAST ? better : '#000000';
}

/** Two colours in a proportion, 0 being all of the first. */
export function mix(a: string, b: string, share: number): string {
  const [x, y] = [Number.parseInt(a.slice(1), 16), Number.parseInt(b.slice(1), 16)];
  const part = (shift: number) =>
    Math.round(((x >> shift) & 255) * (1 - share) + ((y >> shift) & 255) * share);
  return `#${[16, 8, 0].map((s) => part(s).toString(16).padStart(2, '0')).join('')}`;
}

export type StyleProblem = { kind: 'accent-faint'; ratio: number };

/** What is hard to see with these colours. Text is always ink or paper, so only the accent can fail. */
export function checkStyle({ ground, accent }: Style): StyleProblem[] {
  const ratio = contrast(ground, accent);
  return ratio < GRAPHIC_CONTRAST ? [{ kind: 'accent-faint', ratio }] : [];
}
