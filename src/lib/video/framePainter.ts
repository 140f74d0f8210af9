import { VideoSample } from 'mediabunny';
import type { Box } from '$lib/core/narration/frames.ts';
import type { MovedMark } from '$lib/core/narration/motion.ts';
import { changedBox } from './changedBox.ts';
import { paint, type Pictures } from './paint.ts';
import { COLOUR_SPACE, Planes } from './planes.ts';
import planesUrl from './planes.wasm?url&no-inline';

let program: WebAssembly.Module | null = null;
const loadProgram = async (): Promise<WebAssembly.Module> =>
  (program ??= await WebAssembly.compile(await (await fetch(planesUrl)).arrayBuffer()));

/** Formats of four bytes a pixel. */
const PACKED = /^(?:RGB|BGR)[AX]$/;

/** Paints frame after frame of a video, of each only what differs from the one before. */
export class FramePainter {
  readonly #context: OffscreenCanvasRenderingContext2D;
  readonly #whole: Box;
  #before: readonly MovedMark[] | null = null;

  private constructor(
    private readonly planes: Planes,
    private readonly pictures: Pictures,
    private readonly scale: number
  ) {
    const { width, height } = planes;
    const canvas = new OffscreenCanvas(width, height);
    // Every frame is read back: a canvas of the graphics card would only have to fetch it.
    const context = canvas.getContext('2d', { alpha: false, willReadFrequently: true });
    if (!context) throw new Error('There is no canvas to paint on.');
    this.#context = context;
    this.#whole = { x: 0, y: 0, width: width / scale, height: height / scale };
  }

  /** @param scale pixels of the video for each pixel of the frame */
  static async create(
    width: number,
    height: number,
    pictures: Pictures,
    scale: number
  ): Promise<FramePainter> {
    return new FramePainter(new Planes(await loadProgram(), width, height), pictures, scale);
  }

  /** Begins a part: nothing of its first frame is there yet. */
  begin(): void {
    this.#before = null;
  }

  /** @param at seconds, as is its duration */
  async paint(marks: readonly MovedMark[], at: number, duration: number): Promise<VideoSample> {
    const { planes } = this;
    const changed = changedBox(this.#context, this.#before, marks, this.#whole);
    this.#before = marks;
    if (changed) await this.#repaint(marks, planes.around(this.#scaled(changed)));
    const frame = new VideoFrame(planes.data, {
      format: 'I420',
      codedWidth: planes.width,
      codedHeight: planes.height,
      timestamp: Math.round(at * 1e6),
      duration: Math.round(duration * 1e6),
      colorSpace: COLOUR_SPACE
    });
    return new VideoSample(frame);
  }

  async #repaint(marks: readonly MovedMark[], box: Box): Promise<void> {
    const context = this.#context;
    context.save();
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.beginPath();
    context.rect(box.x, box.y, box.width, box.height);
    context.clip();
    paint(context, marks, this.pictures, this.scale);
    context.restore();
    // Several times as quick as `getImageData`, which makes a new picture for each call.
    const painted = new VideoFrame(context.canvas, { timestamp: 0 });
    try {
      // As the browser has it where it can be: anything else would be converted first.
      const format = painted.format && PACKED.test(painted.format) ? painted.format : 'RGBA';
      await painted.copyTo(this.planes.pixelsOf(box), { rect: box, format });
      this.planes.put(box, format.startsWith('BGR'));
    } finally {
      painted.close();
    }
  }

  #scaled({ x, y, width, height }: Box): Box {
    const { scale } = this;
    return { x: x * scale, y: y * scale, width: width * scale, height: height * scale };
  }
}
