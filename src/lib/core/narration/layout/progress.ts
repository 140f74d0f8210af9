import type { Box } from '../frames.ts';
import type { Scene } from '../scenes.ts';
import { mix } from '../styles.ts';
import { addStage, shownOf } from './flow.ts';
import type { Mark, Stage } from './mark.ts';
import {
  divided,
  fit,
  isWide,
  LINE_HEIGHT,
  shorterSide,
  smallHeight,
  textMarks,
  type Setting
} from './setting.ts';
import { legible, listStages, sectionStages } from './words.ts';

/** A row of bars, those that are done filled, the one that is being done growing. */
function bars(box: Box, count: number, done: number, { style, ground }: Setting): Mark[] {
  const gap = Math.min(10, Math.round(box.width / count / 5));
  const width = (box.width - gap * (count - 1)) / count;
  return Array.from({ length: count }, (_, i): Mark => {
    const bar = {
      x: Math.round(box.x + i * (width + gap)),
      y: box.y,
      width: Math.round(width),
      height: box.height
    };
    const base = { kind: 'rect', box: bar, radius: Math.min(4, box.height / 2) } as const;
    if (i === done) return { ...base, move: 'grow-x', colour: style.accent };
    return { ...base, colour: i < done ? style.accent : mix(ground, style.accent, 0.28) };
  });
}

/** Steps one after the other, each with its number, and a row of bars of how far. */
export function stepsStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink } = setting;
  const steps = shownOf(scene);
  const thick = Math.max(8, Math.round(shorterSide(setting) * 0.018));
  const [room, foot] = divided(box, 'y', 1 - (thick * 3) / box.height, thick * 2);
  const [forNumber, forText] = isWide(setting)
    ? divided(room, 'x', 0.2, 24)
    : divided(room, 'y', 0.3, 12);
  const plain: Setting = { ...setting, align: isWide(setting) ? 'start' : setting.align };
  const laid = steps.map(({ text }, i) => ({
    number: fit(String(i + 1), forNumber, plain, 700, 0.3),
    told: fit(text, forText, plain, 500, 0.095)
  }));
  if (laid.some(({ number, told }) => told.pages.length > 1 || number.pages.length > 1))
    return listStages(scene, setting);
  const stages: Stage[] = [];
  for (const [i, { number, told }] of laid.entries()) {
    const stand = isWide(setting) ? 'middle' : undefined;
    const marks = [
      ...textMarks(number.pages[0] ?? [], number, forNumber, plain, {
        weight: 700,
        colour: legible(setting),
        stand: stand ?? 'bottom'
      }),
      ...textMarks(told.pages[0] ?? [], told, forText, plain, {
        weight: 500,
        colour: ink,
        stand: stand ?? 'top'
      }),
      ...bars({ ...foot, y: foot.y + foot.height - thick, height: thick }, laid.length, i, setting)
    ];
    addStage(stages, { line: steps[i]!.line, share: steps[i]!.share, marks }, scene);
  }
  return stages.length > 0 ? stages : listStages(scene, setting);
}

/** A heading among the parts of the video: all their names where there is room, else bars alone. */
export function mapStages(scene: Scene, setting: Setting): Stage[] {
  const parts = scene.pieces.filter((p) => p.role === 'part');
  if (parts.length < 2 || !parts[scene.at]) return sectionStages(scene, setting);
  const { box } = setting;
  const thick = Math.max(6, Math.round(shorterSide(setting) * 0.014));
  const [upper, foot] = divided(box, 'y', isWide(setting) ? 0.7 : 0.5, 24);
  const stages = sectionStages(scene, { ...setting, box: upper });
  const names = namedParts(scene, foot, setting);
  const map =
    names ??
    bars(
      { ...foot, y: foot.y + foot.height - thick, height: thick },
      parts.length,
      scene.at,
      setting
    );
  return stages.map((stage) => ({ ...stage, marks: [...stage.marks, ...map] }));
}

/** The parts by name: side by side under a bar each, or one below the other. */
function namedParts(scene: Scene, box: Box, setting: Setting): Mark[] | null {
  const parts = scene.pieces.filter((p) => p.role === 'part');
  const { family, measure, frame, ink, quiet, style, ground } = setting;
  const size = frame.smallestType;
  const widest = Math.max(...parts.map((p) => measure(p.text, { family, weight: 700, size })));
  const gap = Math.round(size * 0.8);
  const step = Math.round(size * LINE_HEIGHT);
  const text = (i: number, x: number, y: number): Mark => ({
    kind: 'text',
    text: parts[i]!.text,
    x,
    y: Math.round(y + step / 2 + size * 0.35),
    font: { family, weight: i === scene.at ? 700 : 500, size },
    colour: i === scene.at ? ink : quiet,
    align: 'start',
    ...(i === scene.at ? { move: 'line' as const } : {})
  });
  const colourOf = (i: number) => (i <= scene.at ? style.accent : mix(ground, style.accent, 0.28));
  if (isWide(setting)) {
    const width = (box.width - gap * (parts.length - 1)) / parts.length;
    if (widest > width) return null;
    const y = box.y + box.height - smallHeight(setting) - 16;
    return parts.flatMap((_, i): Mark[] => {
      const x = Math.round(box.x + i * (width + gap));
      const bar = { x, y, width: Math.round(width), height: 6 };
      const grows = i === scene.at ? { move: 'grow-x' as const } : {};
      return [{ kind: 'rect', box: bar, colour: colourOf(i), ...grows }, text(i, x, y + 14)];
    });
  }
  const rows = parts.length * (step + 8);
  if (rows > box.height || widest > box.width - 28) return null;
  return parts.flatMap((_, i): Mark[] => {
    const y = box.y + box.height - rows + i * (step + 8);
    const grows = i === scene.at ? { move: 'grow-y' as const } : {};
    return [
      { kind: 'rect', box: { x: box.x, y, width: 8, height: step }, colour: colourOf(i), ...grows },
      text(i, box.x + 28, y)
    ];
  });
}
