import type { Frame, Box } from './frames.ts';
import { fitText, type Fitted, type Font, type Measure } from './fit.ts';
import type { Scene } from './scenes.ts';
import { mix, textOn, type Style, type Typeface } from './styles.ts';
import { qrRows } from './qr.ts';

/** What is painted, from the ground up. Coordinates and sizes are pixels of the frame. */
export type Mark =
  | { kind: 'rect'; box: Box; colour: string; radius?: number }
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      font: Font;
      colour: string;
      align: 'start' | 'middle';
    }
  | { kind: 'picture'; url: string; box: Box; shown: 'contain' | 'cover' | 'moved' }
  | { kind: 'cells'; box: Box; rows: readonly (readonly boolean[])[]; colour: string };

/** What is shown from a moment of the speech on: when so much of a line has been said. */
export interface Stage {
  line: number;
  /** Between 0 and 1. */
  share: number;
  marks: Mark[];
}

export interface SceneLayout {
  stages: Stage[];
  /** Whether something moves all the time. */
  isMoving: boolean;
}

/** The shipped fonts behind the typefaces; what they lack, the system's fonts show. */
export const FAMILIES: Readonly<Record<Typeface, string>> = {
  sans: '"Atkinson Hyperlegible Next Variable", sans-serif',
  serif: '"Literata Variable", serif',
  mono: '"JetBrains Mono Variable", monospace'
};

interface Setting {
  frame: Frame;
  style: Style;
  measure: Measure;
  ink: string;
  ground: string;
  /** Where the text of the card stands. */
  box: Box;
}

/** Lays out one scene: what is painted, and at which moments of the speech it changes. */
export function layOutScene(
  scene: Scene,
  frame: Frame,
  style: Style,
  measure: Measure
): SceneLayout {
  const setting = settingOf(frame, style, measure);
  const below = [...grounds(setting), ...ownMark(setting)];
  const stages = stagesOf(scene, setting).map((stage) => ({
    ...stage,
    marks: [...below, ...stage.marks]
  }));
  return { stages, isMoving: scene.kind === 'picture' && scene.picture?.shown === 'moved' };
}

function settingOf(frame: Frame, style: Style, measure: Measure): Setting {
  const { safe } = frame;
  if (style.name === 'margin') {
    const bar = Math.round(safe.width * 0.05);
    const box = { ...safe, x: safe.x + bar, width: safe.width - bar };
    return { frame, style, measure, ground: style.ground, ink: textOn(style.ground), box };
  }
  const pad = Math.round(Math.min(safe.width, safe.height) * 0.07);
  const box = inset(safe, pad);
  const ground = style.name === 'sheet' ? mix('#ffffff', style.ground, 0.05) : style.ground;
  return { frame, style, measure, ground, ink: textOn(ground), box };
}

const inset = (box: Box, by: number): Box => ({
  x: box.x + by,
  y: box.y + by,
  width: box.width - 2 * by,
  height: box.height - 2 * by
});

function grounds({ frame, style, ground }: Setting): Mark[] {
  const { width, height, safe } = frame;
  const whole = { x: 0, y: 0, width, height };
  switch (style.name) {
    case 'margin':
      return [
        { kind: 'rect', box: whole, colour: ground },
        ...threads(
          {
            x: safe.x - safe.width * 0.02,
            y: safe.y,
            width: safe.width * 0.018,
            height: safe.height
          },
          style.accent,
          ground
        )
      ];
    case 'band': {
      const band = { x: 0, y: safe.y, width, height: safe.height };
      const edge = Math.max(6, Math.round(height * 0.012));
      return [
        { kind: 'rect', box: whole, colour: style.accent },
        { kind: 'rect', box: band, colour: ground },
        { kind: 'rect', box: { ...band, y: band.y + edge, height: 2 }, colour: style.accent },
        {
          kind: 'rect',
          box: { ...band, y: band.y + band.height - edge - 2, height: 2 },
          colour: style.accent
        }
      ];
    }
    case 'sheet':
      return [
        { kind: 'rect', box: whole, colour: style.ground },
        {
          kind: 'rect',
          box: { ...safe, x: safe.x + 10, y: safe.y + 12 },
          colour: style.accent,
          radius: 6
        },
        { kind: 'rect', box: safe, colour: ground, radius: 6 }
      ];
  }
}

/** A narrow strip of plain weave: squares that go over and under by turns. */
function threads(box: Box, colour: string, ground: string): Mark[] {
  const size = box.width / 2;
  const rows = Math.floor(box.height / size);
  return [
    { kind: 'rect', box, colour: mix(ground, colour, 0.35) },
    {
      kind: 'cells',
      box: { ...box, height: rows * size },
      rows: Array.from({ length: rows }, (_, r) => [r % 2 === 0, r % 2 === 1]),
      colour
    }
  ];
}

function ownMark({ frame, style }: Setting): Mark[] {
  if (!style.mark) return [];
  const size = Math.round(Math.min(frame.width, frame.height) * 0.09);
  const { grid } = frame;
  const box = { x: grid.x + grid.width - size - 16, y: grid.y + 16, width: size, height: size };
  return [{ kind: 'picture', url: style.mark, box, shown: 'contain' }];
}

function stagesOf(scene: Scene, setting: Setting): Stage[] {
  switch (scene.kind) {
    case 'title':
      return titleStages(scene, setting);
    case 'section':
      return pagesAsStages(scene, setting, { weight: 700, largest: 0.13, accented: true });
    case 'list':
      return listStages(scene, setting);
    case 'quote':
      return quoteStages(scene, setting);
    case 'picture':
      return pictureStages(scene, setting);
    case 'end':
      return endStages(scene, setting);
    case 'sentence':
      return scene.picture
        ? pictureStages(scene, setting)
        : pagesAsStages(scene, setting, { weight: 500, largest: 0.095 });
  }
}

const family = ({ style }: Setting): string => FAMILIES[style.typeface];
const shorter = ({ frame }: Setting): number => Math.min(frame.width, frame.height);
const textOf = (scene: Scene): string => scene.lines.map((l) => l.text).join(' ');

function fit(text: string, box: Box, setting: Setting, weight: number, largest: number): Fitted {
  const size = Math.max(setting.frame.smallestType, Math.round(shorter(setting) * largest));
  return fitText(
    text,
    {
      width: box.width,
      height: box.height,
      family: family(setting),
      weight,
      largest: size,
      smallest: setting.frame.smallestType,
      lineHeight: 1.28
    },
    setting.measure
  );
}

interface Placing {
  weight: number;
  colour: string;
  align?: 'start' | 'middle';
  /** Where the lines stand in their box. */
  stand?: 'top' | 'middle';
}

function textMarks(
  lines: readonly string[],
  fitted: Fitted,
  box: Box,
  setting: Setting,
  placing: Placing
): Mark[] {
  const step = fitted.size * fitted.lineHeight;
  const free = box.height - lines.length * step;
  const top = box.y + (placing.stand === 'top' ? 0 : free / 2);
  const align = placing.align ?? 'start';
  return lines.map((text, i) => ({
    kind: 'text',
    text,
    x: align === 'middle' ? box.x + box.width / 2 : box.x,
    // The baseline: type hangs about three quarters of its size above it.
    y: Math.round(top + i * step + step / 2 + fitted.size * 0.35),
    font: { family: family(setting), weight: placing.weight, size: fitted.size },
    colour: placing.colour,
    align
  }));
}

/** When a page of a text begins: after as much of it is said as stands on the pages before. */
function pageMoments(scene: Scene, pages: readonly string[][]): { line: number; share: number }[] {
  const lengths = scene.lines.map((l) => l.text.length + 1);
  let shown = 0;
  return pages.map((page) => {
    let [line, before] = [0, 0];
    while (line < lengths.length - 1 && before + (lengths[line] ?? 0) <= shown)
      before += lengths[line++] ?? 0;
    const share = Math.min(1, Math.max(0, (shown - before) / (lengths[line] ?? 1)));
    shown += page.reduce((sum, text) => sum + text.length + 1, 0);
    return { line, share };
  });
}

function pagesAsStages(
  scene: Scene,
  setting: Setting,
  look: { weight: number; largest: number; accented?: boolean }
): Stage[] {
  const { box, ink, style } = setting;
  const rule = look.accented ? Math.round(shorter(setting) * 0.012) : 0;
  const inner = rule ? { ...box, y: box.y + rule * 5, height: box.height - rule * 5 } : box;
  const fitted = fit(textOf(scene), inner, setting, look.weight, look.largest);
  const moments = pageMoments(scene, fitted.pages);
  return fitted.pages.map((lines, i) => {
    const marks = textMarks(lines, fitted, inner, setting, { weight: look.weight, colour: ink });
    const first = marks[0];
    const top = first?.kind === 'text' ? first.y - fitted.size * 1.1 : inner.y;
    const line: Mark[] = rule
      ? [
          {
            kind: 'rect',
            box: {
              x: box.x,
              y: Math.round(top - rule * 3),
              width: Math.round(box.width * 0.22),
              height: rule
            },
            colour: style.accent
          }
        ]
      : [];
    return { ...(moments[i] ?? { line: 0, share: 0 }), marks: [...line, ...marks] };
  });
}

function titleStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink, style, frame } = setting;
  const smallHeight = scene.small ? frame.smallestType * 1.28 + 24 : 0;
  const inner = { ...box, height: box.height - smallHeight };
  const stages = pagesAsStages(scene, { ...setting, box: inner }, { weight: 700, largest: 0.15 });
  const small = scene.small
    ? textMarks(
        [clipped(scene.small, box.width, setting)],
        { size: frame.smallestType, lineHeight: 1.28, pages: [] },
        { ...box, y: box.y + box.height - smallHeight + 24, height: smallHeight - 24 },
        setting,
        { weight: 500, colour: mix(ink, setting.ground, 0.12) }
      )
    : [];
  const bar: Mark = {
    kind: 'rect',
    box: {
      x: box.x,
      y: Math.round(box.y + box.height - smallHeight + 8),
      width: Math.round(box.width * 0.3),
      height: 5
    },
    colour: style.accent
  };
  return stages.map((stage) => ({
    ...stage,
    marks: [...stage.marks, ...small, ...(scene.small ? [bar] : [])]
  }));
}

/** One line of a small text: cut with dots where it is too long. */
function clipped(text: string, width: number, setting: Setting): string {
  const font = { family: family(setting), weight: 500, size: setting.frame.smallestType };
  if (setting.measure(text, font) <= width) return text;
  const letters = [...text];
  while (letters.length > 1 && setting.measure(`${letters.join('')}…`, font) > width) letters.pop();
  return `${letters.join('').trimEnd()}…`;
}

/** A list builds up: an item appears as it is said; a page that is full gives way to the next. */
function listStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink, style, frame } = setting;
  const indent = Math.round(shorter(setting) * 0.06);
  const width = box.width - indent;
  const set = (size: number) =>
    scene.lines.map((line) =>
      fitText(
        line.text,
        {
          width,
          height: box.height,
          family: family(setting),
          weight: 500,
          largest: size,
          smallest: size,
          lineHeight: 1.28
        },
        setting.measure
      )
    );
  const gap = (size: number) => Math.round(size * 0.5);
  const heightOf = (size: number, item: Fitted) => (item.pages.flat().length || 1) * size * 1.28;
  let size = Math.max(frame.smallestType, Math.round(shorter(setting) * 0.075));
  let items = set(size);
  const total = () =>
    items.reduce((sum, item) => sum + heightOf(size, item) + gap(size), -gap(size));
  while (total() > box.height && size > frame.smallestType) {
    size = Math.max(frame.smallestType, Math.floor(size * 0.96));
    items = set(size);
  }
  const stages: Stage[] = [];
  let [page, used]: [Mark[], number] = [[], 0];
  const isOne = total() <= box.height;
  let top = isOne ? box.y + (box.height - total()) / 2 : box.y;
  for (const [i, item] of items.entries()) {
    const pieces = item.pages;
    const moments = pageMoments({ ...scene, lines: [scene.lines[i]!] }, pieces);
    for (const [p, lines] of pieces.entries()) {
      const height = lines.length * size * 1.28;
      if (used > 0 && used + height > box.height + 0.5) {
        [page, used, top] = [[], 0, box.y];
      }
      const place = { x: box.x + indent, y: top + used, width, height };
      const dot = Math.round(size * 0.36);
      const marker: Mark[] =
        p === 0
          ? [
              {
                kind: 'rect',
                box: {
                  x: box.x,
                  y: Math.round(place.y + size * 0.64 - dot / 2),
                  width: dot,
                  height: dot
                },
                colour: style.accent
              }
            ]
          : [];
      page = [
        ...page,
        ...marker,
        ...textMarks(lines, item, place, setting, { weight: 500, colour: ink, stand: 'top' })
      ];
      used += height + gap(size);
      stages.push({ line: i, share: moments[p]?.share ?? 0, marks: page });
    }
  }
  return stages.length > 0 ? stages : [{ line: 0, share: 0, marks: [] }];
}

function quoteStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink, style, frame } = setting;
  const markSize = Math.round(shorter(setting) * 0.16);
  const smallHeight = scene.small ? frame.smallestType * 1.5 : 0;
  const inner = {
    ...box,
    y: box.y + markSize * 0.6,
    height: box.height - markSize * 0.6 - smallHeight
  };
  const fitted = fit(textOf(scene), inner, setting, 500, 0.09);
  const moments = pageMoments(scene, fitted.pages);
  const opening: Mark = {
    kind: 'text',
    text: '“',
    x: box.x,
    y: Math.round(box.y + markSize * 0.75),
    font: { family: FAMILIES.serif, weight: 700, size: markSize },
    colour: style.accent,
    align: 'start'
  };
  const by = scene.small
    ? textMarks(
        [clipped(scene.small, box.width, setting)],
        { size: frame.smallestType, lineHeight: 1.28, pages: [] },
        { ...box, y: box.y + box.height - smallHeight, height: smallHeight },
        setting,
        { weight: 500, colour: mix(ink, setting.ground, 0.12) }
      )
    : [];
  return fitted.pages.map((lines, i) => ({
    ...(moments[i] ?? { line: 0, share: 0 }),
    marks: [
      opening,
      ...textMarks(lines, fitted, inner, setting, { weight: 500, colour: ink }),
      ...by
    ]
  }));
}

function pictureStages(scene: Scene, setting: Setting): Stage[] {
  const { frame, style } = setting;
  const whole = { x: 0, y: 0, width: frame.width, height: frame.height };
  const { picture } = scene;
  if (!picture) return [{ line: 0, share: 0, marks: [] }];
  const marks: Mark[] =
    picture.shown === 'moved'
      ? [{ kind: 'picture', url: picture.url, box: whole, shown: 'moved' }]
      : [
          { kind: 'rect', box: whole, colour: style.ground },
          {
            kind: 'picture',
            url: picture.url,
            box: inset(whole, Math.round(shorter(setting) * 0.04)),
            shown: 'contain'
          }
        ];
  return [{ line: 0, share: 0, marks }];
}

/** The end card: where to read on, as words and as a QR code (ISO/IEC 18004). */
function endStages(scene: Scene, setting: Setting): Stage[] {
  const { box, ink, frame } = setting;
  const rows = scene.small ? qrRows(scene.small) : [];
  const isWide = box.width > box.height;
  const side = Math.round(
    isWide
      ? Math.min(box.height * 0.7, box.width * 0.36)
      : Math.min(box.width * 0.6, box.height * 0.45)
  );
  const code: Box = isWide
    ? { x: box.x + box.width - side, y: box.y + (box.height - side) / 2, width: side, height: side }
    : {
        x: box.x + (box.width - side) / 2,
        y: box.y + box.height - side,
        width: side,
        height: side
      };
  const textBox: Box = isWide
    ? { ...box, width: box.width - (rows.length ? side + 40 : 0) }
    : { ...box, height: box.height - (rows.length ? side + 40 : 0) };
  const address = bareAddressOf(scene.small);
  const halves = {
    upper: { ...textBox, height: textBox.height * 0.62 },
    lower: { ...textBox, y: textBox.y + textBox.height * 0.62, height: textBox.height * 0.38 }
  };
  const said = fit(textOf(scene), scene.small ? halves.upper : textBox, setting, 600, 0.085);
  const written = fit(address, halves.lower, setting, 500, 0.05);
  const moments = pageMoments(scene, said.pages);
  const quiet = 4;
  const cell = rows.length > 0 ? side / (rows.length + quiet * 2) : 0;
  const codeMarks: Mark[] =
    rows.length > 0
      ? [
          { kind: 'rect', box: code, colour: '#ffffff', radius: 6 },
          { kind: 'cells', box: inset(code, cell * quiet), rows, colour: '#000000' }
        ]
      : [];
  const addressMarks = scene.small
    ? textMarks(written.pages[0] ?? [], written, halves.lower, setting, {
        weight: 500,
        colour: mix(ink, setting.ground, 0.1),
        stand: 'top'
      })
    : [];
  return said.pages.map((lines, i) => ({
    ...(moments[i] ?? { line: 0, share: 0 }),
    marks: [
      ...codeMarks,
      ...textMarks(lines, said, scene.small ? halves.upper : textBox, setting, {
        weight: 600,
        colour: ink
      }),
      ...(frame ? addressMarks : [])
    ]
  }));
}

const bareAddressOf = (url: string): string =>
  url.replace(/^https?:\/\/(?:www\.)?/, '').replace(/\/$/, '');
