import type { Piece, Scene } from '../scenes.ts';
import { contrast } from '../styles.ts';
import { addStage, flowStages, pageMoments, pagesAsStages, shownOf, textOf } from './flow.ts';
import type { Mark, Stage } from './mark.ts';
import {
  divided,
  FAMILIES,
  fit,
  isWide,
  rule,
  shorterSide,
  smallHeight,
  smallLine,
  textMarks,
  type Setting
} from './setting.ts';

/** The title, large, with a small line beneath it. */
export function titleStages(scene: Scene, setting: Setting): Stage[] {
  const { box } = setting;
  const foot = scene.small ? smallHeight(setting) + 24 : 0;
  const inner = { ...box, height: box.height - foot };
  const stages = pagesAsStages(scene, setting, { weight: 700, largest: 0.15 }, inner);
  if (!scene.small) return stages;
  const y = box.y + box.height - foot;
  const wide = box.width * 0.3;
  const x = setting.align === 'middle' ? box.x + (box.width - wide) / 2 : box.x;
  const small: Mark[] = [
    rule(x, y + 8, wide, 5, setting),
    ...smallLine(scene.small, { ...box, y: y + 24, height: foot - 24 }, setting)
  ];
  return stages.map((stage) => ({ ...stage, marks: [...stage.marks, ...small] }));
}

export const sectionStages = (scene: Scene, setting: Setting): Stage[] =>
  pagesAsStages(scene, setting, { weight: 700, largest: 0.13, isAccented: true });

/** What is said in a few words, phrase by phrase; without them, the sentence itself. */
export function statementStages(scene: Scene, setting: Setting): Stage[] {
  if (scene.pieces.length === 0)
    return pagesAsStages(scene, setting, { weight: 500, largest: 0.095 });
  return flowStages(shownOf(scene), scene, setting, { weight: 600, largest: 0.14 });
}

export const listStages = (scene: Scene, setting: Setting): Stage[] =>
  flowStages(shownOf(scene), scene, setting, { weight: 500, largest: 0.095, isMarked: true });

/** Somebody's words between marks, and whose they are. */
export function quoteStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink, style } = setting;
  const mark = Math.round(shorterSide(setting) * 0.16);
  const foot = scene.small ? smallHeight(setting) + 8 : 0;
  const inner = { ...box, y: box.y + mark * 0.6, height: box.height - mark * 0.6 - foot };
  const fitted = fit(textOf(scene), inner, setting, 500, 0.09);
  const lengths = scene.lines.map((l, line) => ({ line, length: l.text.length }));
  const moments = pageMoments(lengths, fitted.pages);
  const isCentred = setting.align === 'middle';
  const opening: Mark = {
    kind: 'text',
    move: 'line',
    text: '“',
    x: isCentred ? box.x + box.width / 2 : box.x,
    y: Math.round(box.y + mark * 0.75),
    font: { family: FAMILIES.serif, weight: 700, size: mark },
    colour: style.accent,
    align: setting.align
  };
  const by = smallLine(
    scene.small,
    { ...box, y: box.y + box.height - foot, height: foot },
    setting
  );
  return fitted.pages.map((lines, i) => ({
    ...(moments[i] ?? { line: 0, share: 0 }),
    marks: [
      opening,
      ...textMarks(lines, fitted, inner, setting, { weight: 500, colour: ink }),
      ...by
    ]
  }));
}

/** One text above another, the second from the moment it is said, with a line in the accent between. */
function twoStages(
  [first, second]: readonly [Piece, Piece],
  looks: readonly [Look, Look],
  scene: Scene,
  setting: Setting
): Stage[] | null {
  const { box, ink } = setting;
  const thick = Math.max(4, Math.round(shorterSide(setting) * 0.01));
  const [upper, lower] = divided(box, 'y', looks[0].room, thick * 7);
  const [a, b] = [
    fit(first.text, upper, setting, looks[0].weight, looks[0].largest),
    fit(second.text, lower, setting, looks[1].weight, looks[1].largest)
  ];
  if (a.pages.length > 1 || b.pages.length > 1) return null;
  const wide = box.width * 0.16;
  const x = setting.align === 'middle' ? box.x + (box.width - wide) / 2 : box.x;
  const above = textMarks(a.pages[0] ?? [], a, upper, setting, {
    weight: looks[0].weight,
    colour: ink,
    stand: 'bottom'
  });
  const between = rule(x, upper.y + upper.height + thick * 3, wide, thick, setting);
  const below = textMarks(b.pages[0] ?? [], b, lower, setting, {
    weight: looks[1].weight,
    colour: ink,
    stand: 'top'
  });
  const stages: Stage[] = [];
  addStage(stages, { line: first.line, share: first.share, marks: above }, scene);
  addStage(
    stages,
    { line: second.line, share: second.share, marks: [...above, between, ...below] },
    scene
  );
  return stages;
}
interface Look {
  /** Of the height, for the first. */
  room: number;
  weight: number;
  largest: number;
}

const piecesOf = (scene: Scene, ...roles: Piece['role'][]): Piece[] | null => {
  const found = roles.map((role) => scene.pieces.find((p) => p.role === role && p.text));
  return found.every((p) => p !== undefined) ? (found as Piece[]) : null;
};

/** A scene of two pieces, the second from the moment it is said; as a statement where they do not fit. */
const inTwo =
  (roles: readonly [Piece['role'], Piece['role']], looks: readonly [Look, Look]) =>
  (scene: Scene, setting: Setting): Stage[] => {
    const [first, second] = piecesOf(scene, ...roles) ?? [];
    const stages = first && second ? twoStages([first, second], looks, scene, setting) : null;
    return stages ?? statementStages(scene, setting);
  };

/** A question; its answer from the moment it is given. */
export const questionStages = inTwo(
  ['question', 'answer'],
  [
    { room: 0.5, weight: 500, largest: 0.075 },
    { room: 0.5, weight: 700, largest: 0.1 }
  ]
);

/** A term, and what it means. */
export const termStages = inTwo(
  ['term', 'meaning'],
  [
    { room: 0.42, weight: 700, largest: 0.15 },
    { room: 0.58, weight: 500, largest: 0.08 }
  ]
);

/** A number as large as it may be with what it counts, and what is said of it, small. */
export function figureStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink, quiet, frame, style } = setting;
  const [value, unit, meaning] = piecesOf(scene, 'value', 'unit', 'meaning') ?? [];
  if (!value || !unit || !meaning) return statementStages(scene, setting);
  const [upper, lower] = divided(box, 'y', 0.66, 16);
  const [forValue, forUnit] = isWide(setting)
    ? divided(upper, 'y', 0.68, 8)
    : divided(upper, 'y', 0.64, 8);
  const large = fit(value.text, forValue, setting, 700, 0.36);
  const middle = fit(unit.text, forUnit, setting, 600, 0.1);
  const small = fit(meaning.text, lower, setting, 500, 0.07);
  if (
    [large, middle, small].some((f) => f.pages.length > 1) ||
    large.size < frame.smallestType * 1.5
  )
    return statementStages({ ...scene, pieces: [] }, setting);
  const isWhole = /^\d{1,4}$/.test(value.text);
  const figures = textMarks(large.pages[0] ?? [], large, forValue, setting, {
    weight: 700,
    colour: legible(setting),
    stand: 'bottom'
  }).map((mark): Mark => (isWhole ? { ...mark, move: 'count' } : mark));
  const counted = textMarks(middle.pages[0] ?? [], middle, forUnit, setting, {
    weight: 600,
    colour: ink,
    stand: 'top'
  });
  const told = textMarks(small.pages[0] ?? [], small, lower, setting, {
    weight: 500,
    colour: quiet,
    stand: 'top'
  });
  const line = rule(
    setting.align === 'middle' ? box.x + box.width * 0.35 : box.x,
    lower.y - 14,
    box.width * 0.3,
    4,
    { ...setting, style }
  );
  const stages: Stage[] = [];
  // Until the figure is said, what is said of it has the card to itself.
  if (value.share > 0) {
    const alone = fit(meaning.text, box, setting, 600, 0.12);
    const marks = textMarks(alone.pages[0] ?? [], alone, box, setting, {
      weight: 600,
      colour: ink
    });
    addStage(stages, { line: 0, share: 0, marks }, scene);
  }
  const { line: at, share } = value;
  addStage(stages, { line: at, share, marks: [...figures, ...counted, line, ...told] }, scene);
  return stages;
}

/** Contrast that large type needs (WCAG 2.2, 1.4.3). */
const LARGE_TYPE = 3;

/** The accent where type in it is easy to read, and the ink where it is not. */
export const legible = ({ style, ground, ink }: Setting): string =>
  contrast(style.accent, ground) >= LARGE_TYPE ? style.accent : ink;
