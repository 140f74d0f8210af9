import type { Piece, Scene } from '../scenes.ts';
import { addStage } from './flow.ts';
import type { Mark, Stage } from './mark.ts';
import {
  divided,
  fit,
  isWide,
  LINE_HEIGHT,
  shorterSide,
  textMarks,
  type Setting
} from './setting.ts';
import { listStages, statementStages } from './words.ts';

/** Two things beside each other, or one above the other where the card is narrow; each as it is told. */
export function comparisonStages(scene: Scene, setting: Setting): Stage[] {
  const labels = scene.pieces.filter((p) => p.role === 'label');
  const points = scene.pieces.filter((p) => p.role === 'point');
  if (labels.length !== 2 || points.length !== 2) return statementStages(scene, setting);
  const gap = Math.round(shorterSide(setting) * 0.07);
  const { box } = setting;
  // Beside each other they stand about the middle of the card.
  const about = isWide(setting)
    ? { ...box, y: box.y + box.height * 0.16, height: box.height * 0.68 }
    : box;
  const sides = divided(about, isWide(setting) ? 'x' : 'y', 0.5, gap);
  const wide: Setting = { ...setting, align: 'start' };
  const thick = Math.max(4, Math.round(shorterSide(setting) * 0.012));
  const laid = sides.map((side, i) => {
    const [label, point] = [labels[i]!, points[i]!];
    const below = { ...side, y: side.y + thick * 3, height: side.height - thick * 3 };
    const [upper, lower] = divided(below, 'y', 0.32, 14);
    const named = fit(label.text, upper, wide, 700, 0.11);
    return {
      side,
      upper,
      lower,
      named,
      told: fit(point.text, lower, wide, 500, 0.085),
      label,
      point
    };
  });
  if (laid.some(({ named, told }) => named.pages.length > 1 || told.pages.length > 1))
    return listStages({ ...scene, pieces: [] }, setting);
  // Both sides in the smaller size of the two: they are read against each other.
  const size = Math.min(...laid.map(({ told }) => told.size));
  const stages: Stage[] = [];
  let shown: Mark[] = [];
  for (const { side, upper, lower, named, label, point } of laid) {
    const told = fit(point.text, lower, wide, 500, size / shorterSide(setting));
    shown = [
      ...shown,
      {
        kind: 'rect',
        move: 'grow-x',
        box: { x: side.x, y: side.y, width: side.width, height: thick },
        colour: setting.style.accent
      },
      ...textMarks(named.pages[0] ?? [], named, upper, wide, {
        weight: 700,
        colour: setting.ink,
        stand: 'middle'
      }),
      ...textMarks(told.pages[0] ?? [], told, lower, wide, {
        weight: 500,
        colour: setting.ink,
        stand: 'top'
      })
    ];
    addStage(stages, { line: label.line, share: label.share, marks: shown }, scene);
  }
  return stages;
}

/** A table row by row, its heads first, as large as it fits; what fits at no size is told line by line. */
export function tableStages(scene: Scene, setting: Setting): Stage[] {
  const { columns } = scene;
  const cells = scene.pieces.filter((p) => p.role === 'cell');
  const rows = Array.from({ length: Math.floor(cells.length / Math.max(1, columns)) }, (_, r) =>
    cells.slice(r * columns, (r + 1) * columns)
  );
  const laid = columns > 0 && rows.length > 1 ? laidOut(rows, setting) : null;
  if (!laid) return listStages({ ...scene, pieces: [] }, setting);
  const stages: Stage[] = [];
  let shown: Mark[] = laid[0] ?? [];
  for (const [r, marks] of laid.entries()) {
    if (r === 0) continue;
    shown = [...shown, ...marks];
    const { line, share } = rows[r]![0]!;
    addStage(stages, { line, share, marks: shown }, scene);
  }
  return stages;
}

/** Room between two columns, and what a row has above and below, in sizes of type. */
const GUTTER = 0.9;
const ROW = 1.7;

function laidOut(rows: readonly (readonly Piece[])[], setting: Setting): Mark[][] | null {
  const { box, family, measure, frame, ink, quiet, style } = setting;
  const fontOf = (r: number, size: number) => ({ family, weight: r === 0 ? 700 : 500, size });
  const widths = (size: number) =>
    (rows[0] ?? []).map((_, c) =>
      Math.max(...rows.map((row, r) => measure(row[c]?.text ?? '', fontOf(r, size))))
    );
  const fits = (size: number) =>
    rows.length * size * ROW <= box.height &&
    widths(size).reduce((sum, w) => sum + w + size * GUTTER, -size * GUTTER) <= box.width;
  let size = Math.round(shorterSide(setting) * 0.075);
  while (size > frame.smallestType && !fits(size))
    size = Math.max(frame.smallestType, Math.floor(size * 0.96));
  if (!fits(size)) return null;
  const set = widths(size);
  const spare = box.width - set.reduce((sum, w) => sum + w, 0);
  const gutter = Math.min(size * 2.4, spare / Math.max(1, set.length - 1));
  const top = box.y + (box.height - rows.length * size * ROW) / 2;
  return rows.map((row, r) => {
    const y = top + r * size * ROW;
    const line: Mark = {
      kind: 'rect',
      move: 'grow-x',
      box: {
        x: box.x,
        y: Math.round(y + size * (ROW - 0.15)),
        width: box.width,
        height: r === 0 ? 4 : 1
      },
      colour: r === 0 ? style.accent : quiet
    };
    const words = row.map((cell, c): Mark => {
      const before = set.slice(0, c).reduce((sum, w) => sum + w + gutter, 0);
      return {
        kind: 'text',
        move: 'line',
        text: cell.text,
        x: box.x + before,
        y: Math.round(y + (size * LINE_HEIGHT) / 2 + size * 0.35),
        font: fontOf(r, size),
        colour: ink,
        align: 'start'
      };
    });
    return [...words, ...(r < rows.length - 1 ? [line] : [])];
  });
}
