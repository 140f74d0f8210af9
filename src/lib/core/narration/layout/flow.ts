import { fitText, type Fitted } from '../fit.ts';
import type { Box } from '../frames.ts';
import type { Scene } from '../scenes.ts';
import type { Mark, Stage } from './mark.ts';
import { LINE_HEIGHT, rule, shorterSide, fit, textMarks, type Setting } from './setting.ts';

/** Words that appear together, and when. */
export interface Shown {
  text: string;
  line: number;
  share: number;
}

/** What a scene shows: its pieces, or its lines as they are written. */
export const shownOf = (scene: Scene): Shown[] =>
  scene.pieces.length > 0
    ? scene.pieces.filter((p) => p.text)
    : scene.lines.map(({ text }, line) => ({ text, line, share: 0 }));

export const textOf = (scene: Scene): string => scene.lines.map((l) => l.text).join(' ');

interface FlowLook {
  weight: number;
  /** Size of type at most, as a share of the shorter side. */
  largest: number;
  /** Whether a mark in the accent stands before each. */
  isMarked?: boolean;
}

/**
 * Texts one below the other, each from the moment it is said; a page that is full gives way to the next.
 * Set as large as all of it fits, down to the floor: nothing overflows and nothing is left out.
 */
export function flowStages(
  texts: readonly Shown[],
  scene: Scene,
  setting: Setting,
  { weight, largest, isMarked = false }: FlowLook
): Stage[] {
  const { box, frame, ink, style, measure, family } = setting;
  const indent = isMarked ? Math.round(shorterSide(setting) * 0.06) : 0;
  const width = box.width - indent;
  const set = (size: number) =>
    texts.map(({ text }) =>
      fitText(
        text,
        {
          width,
          height: box.height,
          family,
          weight,
          largest: size,
          smallest: size,
          lineHeight: LINE_HEIGHT
        },
        measure
      )
    );
  const gapOf = (size: number) => Math.round(size * 0.5);
  const heightOf = (size: number, item: Fitted) =>
    (item.pages.flat().length || 1) * size * LINE_HEIGHT;
  let size = Math.max(frame.smallestType, Math.round(shorterSide(setting) * largest));
  let items = set(size);
  const total = () =>
    items.reduce((sum, item) => sum + heightOf(size, item) + gapOf(size), -gapOf(size));
  while ((total() > box.height || items.some(isCut)) && size > frame.smallestType) {
    size = Math.max(frame.smallestType, Math.floor(size * 0.96));
    items = set(size);
  }
  const isOne = total() <= box.height;
  const free = isOne ? box.height - total() : 0;
  let top = box.y + (setting.stand === 'bottom' ? free : free / 2);
  const stages: Stage[] = [];
  let [page, used]: [Mark[], number] = [[], 0];
  for (const [i, item] of items.entries()) {
    const shown = texts[i]!;
    const moments = pageMoments([{ ...shown, length: shown.text.length }], item.pages);
    for (const [p, lines] of item.pages.entries()) {
      const height = lines.length * size * LINE_HEIGHT;
      if (used > 0 && used + height > box.height + 0.5) [page, used, top] = [[], 0, box.y];
      const place = { x: box.x + indent, y: top + used, width, height };
      const marker = isMarked && p === 0 ? [markerAt(box.x, place.y, size, style.accent)] : [];
      const marks = textMarks(lines, item, place, setting, {
        weight,
        colour: ink,
        stand: 'top',
        ...(isMarked ? { align: 'start' as const } : {})
      });
      page = [...page, ...marker, ...marks];
      used += height + gapOf(size);
      const share = shown.share + (1 - shown.share) * (moments[p]?.share ?? 0);
      addStage(stages, { line: shown.line, share, marks: page }, scene);
    }
  }
  return stages.length > 0 ? stages : [{ line: 0, share: 0, marks: [] }];
}

/** Whether a word of it had to be cut: a line without any space that is not the whole text. */
const isCut = ({ pages }: Fitted): boolean => {
  const lines = pages.flat();
  return lines.some(
    (line, i) =>
      i < lines.length - 1 && !/[\s-]/.test(line) && /\p{L}$/u.test(line) && line.length > 12
  );
};

const markerAt = (x: number, y: number, size: number, colour: string): Mark => {
  const dot = Math.round(size * 0.36);
  return {
    kind: 'rect',
    move: 'shape',
    box: { x, y: Math.round(y + size * 0.64 - dot / 2), width: dot, height: dot },
    colour
  };
};

/** Pieces that appear at the same moment are one stage; what is shown first is there from the start. */
export function addStage(stages: Stage[], stage: Stage, scene: Scene): void {
  const last = stages.at(-1);
  const first = scene.lines.findIndex((l) => l.spoken);
  const isStart = stages.length === 0;
  const at = isStart ? { ...stage, line: Math.max(0, first), share: 0 } : stage;
  if (last && last.line === at.line && last.share === at.share) stages[stages.length - 1] = at;
  else stages.push(at);
}

/** When a page of a text begins: after as much of it is said as stands on the pages before. */
export function pageMoments(
  texts: readonly { line: number; length: number }[],
  pages: readonly string[][]
): { line: number; share: number }[] {
  let shown = 0;
  return pages.map((page) => {
    let [at, before] = [0, 0];
    while (at < texts.length - 1 && before + texts[at]!.length + 1 <= shown)
      before += texts[at++]!.length + 1;
    const share = Math.min(1, Math.max(0, (shown - before) / ((texts[at]?.length ?? 0) + 1)));
    shown += page.reduce((sum, text) => sum + text.length + 1, 0);
    return { line: texts[at]?.line ?? 0, share };
  });
}

/** Whole sentences as pages, one after the other where they do not fit on one. */
export function pagesAsStages(
  scene: Scene,
  setting: Setting,
  look: { weight: number; largest: number; isAccented?: boolean },
  box: Box = setting.box
): Stage[] {
  const thick = look.isAccented ? Math.round(shorterSide(setting) * 0.012) : 0;
  const inner = thick ? { ...box, y: box.y + thick * 5, height: box.height - thick * 5 } : box;
  const fitted = fit(textOf(scene), inner, setting, look.weight, look.largest);
  const lengths = scene.lines.map((l, line) => ({ line, length: l.text.length }));
  const moments = pageMoments(lengths, fitted.pages);
  return fitted.pages.map((lines, i) => {
    const marks = textMarks(lines, fitted, inner, setting, {
      weight: look.weight,
      colour: setting.ink
    });
    const first = marks[0];
    const top = first?.kind === 'text' ? first.y - fitted.size * 1.1 : inner.y;
    const wide = box.width * 0.22;
    const x = setting.align === 'middle' ? box.x + (box.width - wide) / 2 : box.x;
    const line = thick ? [rule(x, top - thick * 3, wide, thick, setting)] : [];
    return { ...(moments[i] ?? { line: 0, share: 0 }), marks: [...line, ...marks] };
  });
}
