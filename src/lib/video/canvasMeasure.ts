import type { Measure } from '$lib/core/narration/fit.ts';

type Context = OffscreenCanvasRenderingContext2D | CanvasRenderingContext2D;

/** Measures texts on a canvas, each once. */
export function canvasMeasure(context: Context): Measure {
  const known = new Map<string, number>();
  return (text, { family, weight, size }) => {
    const font = `${weight} ${size}px ${family}`;
    const name = `${font}|${text}`;
    let width = known.get(name);
    if (width === undefined) {
      context.font = font;
      const { width: advance, actualBoundingBoxRight: right } = context.measureText(text);
      width = Math.max(advance, right);
      if (known.size > 20_000) known.clear();
      known.set(name, width);
    }
    return width;
  };
}
