import type { ReachChart } from '$lib/core/reach/series.ts';
import { drawReach } from './reachChart.ts';

const WIDTH = 1200;
const HEIGHT = 480;
/** Space above for the title and what the lines are. */
const HEAD = 64;

/** A chart as a PNG, with its title and what its lines are. */
export async function chartImage(title: string, chart: ReachChart): Promise<Blob> {
  const holder = document.createElement('div');
  Object.assign(holder.style, {
    position: 'fixed',
    left: '-10000px',
    width: `${WIDTH}px`,
    height: `${HEIGHT - HEAD}px`
  });
  const drawn = document.createElement('canvas');
  holder.append(drawn);
  document.body.append(holder);
  try {
    const engine = drawReach(drawn, chart);
    const sheet = document.createElement('canvas');
    const scale = drawn.width / WIDTH;
    sheet.width = drawn.width;
    sheet.height = Math.round(HEIGHT * scale);
    const context = sheet.getContext('2d');
    if (!context) throw new Error('This browser draws no pictures.');
    const style = getComputedStyle(document.body);
    context.fillStyle = style.backgroundColor;
    context.fillRect(0, 0, sheet.width, sheet.height);
    context.scale(scale, scale);
    context.fillStyle = style.color;
    context.font = '600 20px sans-serif';
    context.fillText(title, 16, 30, WIDTH - 32);
    context.font = '14px sans-serif';
    const names = chart.lines.map(({ label, kind }) => `${label} (${STROKES[kind]})`);
    context.fillText(names.join('   ·   '), 16, 52, WIDTH - 32);
    context.drawImage(drawn, 0, HEAD, WIDTH, HEIGHT - HEAD);
    engine.destroy();
    return await new Promise<Blob>((done, fail) =>
      sheet.toBlob((blob) => (blob ? done(blob) : fail(new Error('No picture came.'))), 'image/png')
    );
  } finally {
    holder.remove();
  }
}

const STROKES = { video: 'solid line', post: 'dashed line', update: 'bars' };
