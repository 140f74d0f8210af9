import type { Measure } from '../fit.ts';
import type { Box, Frame } from '../frames.ts';
import type { SceneKind } from '../scenes.ts';
import { contrast, GRAPHIC_CONTRAST, mix, type Style } from '../styles.ts';
import type { Mark } from './mark.ts';
import { FAMILIES, inset, settingFor, type Setting } from './setting.ts';

/** Room that words take at the foot of a card where they light up as they are said: a share of the height. */
export const LIGHTS_ROOM = { wide: 0.17, upright: 0.16, square: 0.16 } as const;

/** Cards that are seen as thumbnails: their words stand where no grid crops them. */
const CROPPED: ReadonlySet<SceneKind> = new Set(['title', 'end']);

/** Where the text of a card stands in a style and a shape, and in which colours. */
export function settingOf(
  kind: SceneKind,
  frame: Frame,
  style: Style,
  measure: Measure,
  hasLights: boolean
): Setting {
  const family = style.font
    ? `"${style.font}", ${FAMILIES[style.typeface]}`
    : FAMILIES[style.typeface];
  const room = CROPPED.has(kind) ? frame.safe : frame.room;
  const lights = hasLights ? Math.round(frame.height * LIGHTS_ROOM[frame.name]) : 0;
  const above = frame.height - lights - frame.height * 0.04;
  const area = { ...room, height: Math.round(Math.min(room.height, above - room.y)) };
  const { box, align, stand, ground } = standOf(style, frame, area);
  return settingFor({ frame, style, measure, box, align, stand, ground }, family);
}

type Standing = Pick<Setting, 'box' | 'align' | 'stand' | 'ground'>;

function standOf(style: Style, frame: Frame, area: Box): Standing {
  const pad = Math.round(Math.min(area.width, area.height) * 0.06);
  const { ground } = style;
  const isTall = frame.width <= frame.height;
  switch (style.name) {
    case 'margin': {
      const bar = Math.round(area.width * 0.05);
      const box = { ...area, x: area.x + bar, width: area.width - bar };
      return { box, ground, align: 'start', stand: 'middle' };
    }
    case 'band':
      return { box: inset(area, pad), ground, align: 'middle', stand: 'middle' };
    case 'sheet':
      return {
        box: inset(area, pad),
        ground: mix('#ffffff', ground, 0.05),
        align: 'start',
        stand: 'middle'
      };
    case 'panel': {
      // The panel takes the side of a wide card and the top of the others.
      const taken = panelOf(frame);
      const box = isTall
        ? { ...area, y: taken.height + pad, height: area.y + area.height - taken.height - pad }
        : {
            ...area,
            x: taken.width + pad,
            width: area.x + area.width - taken.width - pad
          };
      return { box, ground, align: 'start', stand: 'middle' };
    }
    case 'poster':
      return { box: area, ground, align: 'start', stand: 'bottom' };
    case 'line':
      return { box: inset(area, pad), ground, align: 'middle', stand: 'middle' };
  }
}

/** The panel of colour: a fifth of a wide card, an eighth of the others, as far as no grid crops it off. */
const panelOf = ({ width, height, safe }: Frame): Box =>
  width > height
    ? { x: 0, y: 0, width: Math.round(safe.x * 0.95), height }
    : { x: 0, y: 0, width, height: Math.round(safe.y * 0.9) };

/** What lies under every card of a style. */
export function grounds({ frame, style, ground, box }: Setting): Mark[] {
  const { width, height } = frame;
  const whole = { x: 0, y: 0, width, height };
  const all: Mark = { kind: 'rect', box: whole, colour: ground };
  const faint = mix(ground, style.accent, 0.35);
  switch (style.name) {
    case 'margin': {
      const strip = Math.round(Math.min(width, height) * 0.022);
      return [
        all,
        ...threads(
          { x: box.x - strip * 2, y: box.y, width: strip, height: box.height },
          style.accent,
          faint
        )
      ];
    }
    case 'band': {
      const top = Math.round(frame.room.y * 0.72);
      const band = { x: 0, y: top, width, height: height - 2 * top };
      const edge = Math.max(6, Math.round(height * 0.012));
      const line = (y: number): Mark => ({
        kind: 'rect',
        box: { ...band, y, height: 2 },
        colour: style.accent
      });
      return [
        { kind: 'rect', box: whole, colour: style.accent },
        { kind: 'rect', box: band, colour: ground },
        line(band.y + edge),
        line(band.y + band.height - edge - 2)
      ];
    }
    case 'sheet': {
      const sheet = inset(whole, Math.round(Math.min(frame.room.x, frame.room.y) * 0.6));
      return [
        { kind: 'rect', box: whole, colour: style.ground },
        {
          kind: 'rect',
          box: { ...sheet, x: sheet.x + 10, y: sheet.y + 12 },
          colour: style.accent,
          radius: 6
        },
        { kind: 'rect', box: sheet, colour: ground, radius: 6 }
      ];
    }
    case 'panel': {
      const panel = panelOf(frame);
      return [
        all,
        { kind: 'rect', box: panel, colour: style.accent },
        ...twill(panel, style.accent, ground)
      ];
    }
    case 'poster': {
      const size = Math.round(Math.min(width, height) * 0.5);
      // Three broad threads that cross a corner, drawn so faintly that type is read over them.
      return [
        all,
        ...corner(
          { x: width - size, y: 0, width: size, height: size },
          mix(ground, style.accent, 0.14)
        )
      ];
    }
    case 'line': {
      const outer = Math.round(Math.min(frame.room.x, frame.room.y) * 0.5);
      return [
        all,
        ...outline(inset(whole, outer), style.accent, 3),
        ...outline(inset(whole, outer + 8), faint, 1)
      ];
    }
  }
}

/** A narrow strip of plain weave: squares that go over and under by turns. */
function threads(box: Box, colour: string, faint: string): Mark[] {
  const size = box.width / 2;
  const rows = Math.floor(box.height / size);
  return [
    { kind: 'rect', box, colour: faint },
    {
      kind: 'cells',
      box: { ...box, height: rows * size },
      rows: Array.from({ length: rows }, (_, r) => [r % 2 === 0, r % 2 === 1]),
      colour
    }
  ];
}

/** A twill of four in a panel: two over and two under, a thread further in each row. */
function twill(box: Box, accent: string, ground: string): Mark[] {
  const size = Math.max(8, Math.round(Math.min(box.width, box.height) / 9));
  const [columns, rows] = [Math.ceil(box.width / size), Math.ceil(box.height / size)];
  return [
    {
      kind: 'cells',
      box: { ...box, width: columns * size, height: rows * size },
      rows: Array.from({ length: rows }, (_, r) =>
        Array.from({ length: columns }, (_, c) => (c + r) % 4 < 2 && (c + 1) * size <= box.width)
      ),
      colour: mix(accent, ground, contrast(accent, ground) > GRAPHIC_CONTRAST ? 0.22 : 0.5)
    }
  ];
}

function corner(box: Box, colour: string): Mark[] {
  const thread = Math.round(box.width * 0.11);
  return [0, 1, 2].flatMap((i): Mark[] => {
    const at = Math.round(box.width * (0.3 + i * 0.24));
    return [
      {
        kind: 'rect',
        box: {
          x: box.x + at,
          y: box.y,
          width: thread,
          height: Math.round(box.height * (0.4 + 0.2 * i))
        },
        colour
      }
    ];
  });
}

const outline = ({ x, y, width, height }: Box, colour: string, thick: number): Mark[] => [
  { kind: 'rect', box: { x, y, width, height: thick }, colour },
  { kind: 'rect', box: { x, y: y + height - thick, width, height: thick }, colour },
  { kind: 'rect', box: { x, y, width: thick, height }, colour },
  { kind: 'rect', box: { x: x + width - thick, y, width: thick, height }, colour }
];

/** The user's own mark, in the corner that a grid shows. */
export function ownMark({ frame, style }: Setting): Mark[] {
  if (!style.mark) return [];
  const size = Math.round(Math.min(frame.width, frame.height) * 0.09);
  const { grid } = frame;
  const box = { x: grid.x + grid.width - size - 16, y: grid.y + 16, width: size, height: size };
  return [{ kind: 'picture', url: style.mark, box, shown: 'contain' }];
}
