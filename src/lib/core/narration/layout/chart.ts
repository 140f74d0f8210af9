import { chartOf, type Bar } from '../chart.ts';
import type { Scene } from '../scenes.ts';
import { comparisonStages, tableStages } from './columns.ts';
import { addStage } from './flow.ts';
import type { Mark, Stage } from './mark.ts';
import { isWide, shorterSide, smallHeight, smallLine, type Setting } from './setting.ts';
import { legible } from './words.ts';

/** Heights in sizes of type: of a label above its bar, of a bar, and of what is free below it. */
const [LABEL, BAR, FREE] = [1.25, 0.9, 0.75];
/** Room between a bar and its number. */
const GAP = 0.5;

/** Figures in the same unit as bars, one after the other as they are told; the longest takes the whole width. */
export function chartStages(scene: Scene, setting: Setting): Stage[] {
  const chart = chartOf(scene);
  const size = chart && sizeFor(chart.bars, setting);
  if (!chart || !size)
    return scene.columns > 1 ? tableStages(scene, setting) : comparisonStages(scene, setting);
  const { title, bars } = chart;
  const { box, family, measure, ink, quiet, style } = setting;
  const font = { family, weight: 500, size };
  const numbers = { family, weight: 700, size };
  const widest = Math.max(...bars.map((b) => measure(b.shown, numbers)));
  const room = box.width - widest - size * GAP;
  const longest = Math.max(...bars.map((b) => b.value));
  const step = size * (LABEL + BAR + FREE);
  const head = smallHeight(setting) * 1.5;
  const top = box.y + head + (box.height - head - step * bars.length + size * FREE) / 2;
  const stages: Stage[] = [];
  let shown: Mark[] = smallLine(title, box, setting, 'start');
  for (const [i, { label, value, shown: number, line, share }] of bars.entries()) {
    const y = top + i * step;
    const width = Math.max(size * 0.2, Math.floor((room * value) / longest));
    const bar = {
      x: box.x,
      y: Math.round(y + size * LABEL),
      width,
      height: Math.round(size * BAR)
    };
    shown = [
      ...shown,
      {
        kind: 'text',
        move: 'line',
        text: label,
        x: box.x,
        y: Math.round(y + size * 0.9),
        font,
        colour: isWide(setting) ? ink : quiet,
        align: 'start'
      },
      { kind: 'rect', move: 'grow-x', box: bar, colour: style.accent, radius: 2 },
      {
        kind: 'text',
        move: 'count',
        text: number,
        x: Math.floor(box.x + width + size * GAP),
        y: Math.round(bar.y + bar.height / 2 + size * 0.35),
        font: numbers,
        colour: legible(setting),
        align: 'start'
      }
    ];
    addStage(stages, { line, share, marks: shown }, scene);
  }
  return stages;
}

/** The largest size at which all bars and their words have room; null where there is none. */
function sizeFor(bars: readonly Bar[], setting: Setting): number | null {
  const { box, family, measure, frame } = setting;
  const step = LABEL + BAR + FREE;
  const fits = (size: number) =>
    bars.length * size * step <= box.height - smallHeight(setting) * 1.5 &&
    bars.every(
      ({ label, shown }) =>
        measure(label, { family, weight: 500, size }) <= box.width &&
        measure(shown, { family, weight: 700, size }) <= box.width * 0.5
    );
  let size = Math.round(shorterSide(setting) * 0.08);
  while (size > frame.smallestType && !fits(size))
    size = Math.max(frame.smallestType, Math.floor(size * 0.96));
  return fits(size) ? size : null;
}
