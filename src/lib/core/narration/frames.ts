import { z } from 'zod';

export const frameNameSchema = z.enum(['wide', 'upright', 'square']);
export type FrameName = z.infer<typeof frameNameSchema>;

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A picture format in pixels, and what of it can be relied on. */
export interface Frame {
  name: FrameName;
  width: number;
  height: number;
  /** Where text may stand. It lies within `grid`, so that a crop loses nothing of it. */
  safe: Box;
  /** Where words of all cards but the first and the last may stand: what no player covers. */
  room: Box;
  /** What a grid of thumbnails shows of it, cropped from the middle. */
  grid: Box;
  /** The smallest size of type, in pixels, that can be read on a telephone. */
  smallestType: number;
}

const middle = (width: number, height: number, w: number, h: number): Box => ({
  x: Math.round((width - w) / 2),
  y: Math.round((height - h) / 2),
  width: Math.round(w),
  height: Math.round(h)
});

/**
 * A frame of any shape, for a card that is a picture by itself: all of it is shown.
 * @param shape width over height
 */
export function frameOfShape(shape: number): Frame {
  const area = 960 * 960;
  const width = Math.round(Math.sqrt(area * shape));
  const height = Math.round(Math.sqrt(area / shape));
  const name = shape > 1.2 ? 'wide' : shape < 0.8 ? 'upright' : 'square';
  const whole = { x: 0, y: 0, width, height };
  const safe = middle(width, height, width * 0.82, height * 0.8);
  return { name, width, height, smallestType: 30, safe, room: safe, grid: whole };
}

/** Grids crop a wide picture to 4:3, an upright one to 4:5 and leave a square one nearly whole. */
export const FRAMES: Readonly<Record<FrameName, Frame>> = {
  wide: {
    name: 'wide',
    width: 1280,
    height: 720,
    smallestType: 30,
    safe: middle(1280, 720, 880, 560),
    room: middle(1280, 720, 1100, 590),
    grid: middle(1280, 720, 960, 720)
  },
  upright: {
    name: 'upright',
    width: 720,
    height: 1280,
    smallestType: 32,
    safe: middle(720, 1280, 592, 800),
    room: middle(720, 1280, 600, 860),
    grid: middle(720, 1280, 720, 900)
  },
  square: {
    name: 'square',
    width: 960,
    height: 960,
    smallestType: 34,
    safe: middle(960, 960, 760, 760),
    room: middle(960, 960, 800, 790),
    grid: middle(960, 960, 900, 900)
  }
};

/** Lines of the shorter side, as it is said of video. */
export const resolutionSchema = z.enum(['720p', '1080p']);
export type Resolution = z.infer<typeof resolutionSchema>;

/** Width and height of a finished video, both even; a square one has 960 lines at the least. */
export function pixelsOf(
  name: FrameName,
  resolution: Resolution
): { width: number; height: number } {
  const { width, height } = FRAMES[name];
  const scale = resolution === '1080p' ? 1080 / Math.min(width, height) : 1;
  return { width: Math.round(width * scale), height: Math.round(height * scale) };
}
