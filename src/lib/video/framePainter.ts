import { VideoSample } from 'mediabunny';
import type { Box } from '$lib/core/narration/frames.ts';
import type { MovedMark } from '$lib/core/narration/motion.ts';
import { changedBox } from './changedBox.ts';
import { paint, type Pictures } from './paint.ts';
import { COLOUR_SPACE, Planes } from './planes.ts';

/** Paints frame after frame of a video, of each only what differs from the one before. */
export class FramePainter {
  readonly #context: OffscreenCanvasRenderingContext2D;
  readonly #planes: Planes;
  readonly #whole: Box;
  #before: readonly MovedMark[] | null = null;

  /** @param scale pixels of the video for each pixel of the frame */
  constructor(
    readonly width: number,
    readonly height: number,
    private readonly pictures: Pictures,
    private readonly scale: number
  ) {
    const canvas = new OffscreenCanvas(width, height);
    // Every frame is read back: a canvas of the graphics card would only have to fetch it.
    const context = canvas.getContext('2d', { alpha: false, willReadFrequently: true });
    if (!context) throw new Error('There is no canvas to paint on.');
    this.#context = context;
    this.#planes = new Planes(width, height);
    this.#whole = { x: 0, y: 0, width: width / scale, height: height / scale };
  }

  /** @param at seconds, as is its duration */
  paint(marks: readonly MovedMark[], at: number, duration: number): VideoSample {
    const context = this.#context;
    const changed = changedBox(context, this.#before, marks, this.#whole);
    this.#before = marks;
    if (changed) {
      const box = this.#planes.even(this.#scaled(changed));
      context.save();
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.beginPath();
      context.rect(box.x, box.y, box.width, box.height);
      context.clip();
      paint(context, marks, this.pictures, this.scale);
      context.restore();
      this.#planes.put(context.getImageData(box.x, box.y, box.width, box.height), box);
    }
    const frame = new VideoFrame(this.#planes.data, {
      format: 'I420',
      codedWidth: this.width,
      codedHeight: this.height,
      timestamp: Math.round(at * 1e6),
      duration: Math.round(duration * 1e6),
      colorSpace: COLOUR_SPACE
    });
    return new VideoSample(frame);
  }

  #scaled({ x, y, width, height }: Box): Box {
    const { scale } = this;
    return { x: x * scale, y: y * scale, width: width * scale, height: height * scale };
  }
}
