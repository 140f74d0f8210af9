import { clothSvg } from './drawdown.ts';
import type { Draft, SceneName } from './draft.ts';

type Attributes = Record<string, string | number>;

const [WIDE, TALL] = [640, 360];
const WOOD = '#b98a56';
const DARK_WOOD = '#7a5632';
const SKIN = '#d9a27e';
const SLEEVE = '#4d6470';
const INK = '#2b2926';

const element = (name: string, attributes: Attributes, inside = ''): string =>
  `<${name} ${Object.entries(attributes)
    .map(([key, value]) => `${key}="${value}"`)
    .join(' ')}>${inside}</${name}>`;
const rect = (x: number, y: number, width: number, height: number, fill: string, rx = 4) =>
  element('rect', { x, y, width, height, rx, fill });
const path = (d: string, fill: string, more: Attributes = {}) =>
  element('path', { d, fill, ...more });
const line = (d: string, stroke: string, width: number) =>
  path(d, 'none', { stroke, 'stroke-width': width, 'stroke-linecap': 'round' });
const group = (transform: string, inside: string) => element('g', { transform }, inside);
const times = (count: number, draw: (i: number) => string): string =>
  Array.from({ length: count }, (_, i) => draw(i)).join('');

/** The cloth of a draft in a frame of its own. */
function cloth(draft: Draft, x: number, y: number, width: number, height: number): string {
  const svg = clothSvg(draft, width, height).replace(
    '<svg ',
    `<svg x="${x}" y="${y}" overflow="hidden" `
  );
  return svg;
}

/** A wall with a window and the light that falls from it. */
const room = (wall: string, floor: string): string =>
  rect(0, 0, WIDE, TALL, wall, 0) +
  rect(0, 285, WIDE, 75, floor, 0) +
  rect(470, 28, 132, 138, '#f4f0df') +
  rect(532, 28, 6, 138, wall, 0) +
  rect(470, 94, 132, 6, wall, 0) +
  path('M470 166 L602 166 L470 360 L250 360 Z', '#ffffff', { 'fill-opacity': 0.1 });

/** A forearm that comes in from below, with a hand at its end. */
const hand = (x: number, y: number, turn: number): string =>
  group(
    `translate(${x} ${y}) rotate(${turn})`,
    rect(-26, 58, 52, 190, SLEEVE, 22) +
      rect(-22, 6, 44, 76, SKIN, 20) +
      times(4, (i) => rect(-23 + i * 12, -34 + Math.abs(i - 1.5) * 5, 10, 56, SKIN, 5)) +
      group('rotate(38)', rect(8, -8, 12, 44, SKIN, 6))
  );

const skein = (x: number, y: number, colour: string, scale = 1): string =>
  group(
    `translate(${x} ${y}) scale(${scale})`,
    times(7, (i) =>
      element('ellipse', {
        cx: (i - 3) * 3,
        cy: 0,
        rx: 24,
        ry: 62,
        fill: 'none',
        stroke: colour,
        'stroke-width': 5,
        'stroke-opacity': 0.75 + i * 0.04
      })
    ) +
      rect(-30, -6, 60, 12, colour, 6) +
      line('M-26 0 L26 0', INK, 1)
  );

const shuttle = (x: number, y: number, turn: number, { weft }: Draft): string =>
  group(
    `translate(${x} ${y}) rotate(${turn})`,
    path(
      'M-150 0 C-120 -30 -70 -34 0 -34 C70 -34 120 -30 150 0 C120 30 70 34 0 34 C-70 34 -120 30 -150 0 Z',
      WOOD
    ) +
      rect(-82, -17, 164, 34, DARK_WOOD, 14) +
      rect(-66, -12, 132, 24, weft, 11) +
      times(11, (i) => line(`M${-58 + i * 12} -11 L${-62 + i * 12} 11`, '#ffffff55', 2))
  );

/** A loom from the front: frame, shafts with their heddles, warp, and the cloth that grows. */
const loom = (draft: Draft): string =>
  rect(92, 60, 22, 250, DARK_WOOD) +
  rect(526, 60, 22, 250, DARK_WOOD) +
  rect(80, 48, 480, 22, WOOD) +
  times(4, (i) => rect(150, 92 + i * 15, 340, 7, i % 2 ? WOOD : DARK_WOOD, 3)) +
  times(43, (i) => line(`M${158 + i * 7.7} 98 L${158 + i * 7.7} 236`, draft.warp, 2.4)) +
  rect(120, 166, 400, 16, WOOD) +
  cloth(draft, 154, 214, 332, 78) +
  rect(104, 286, 432, 26, WOOD, 12) +
  rect(196, 326, 40, 20, DARK_WOOD) +
  rect(262, 326, 40, 20, DARK_WOOD) +
  rect(328, 326, 40, 20, DARK_WOOD) +
  rect(394, 326, 40, 20, DARK_WOOD);

const SCENES: Record<SceneName, (draft: Draft) => string> = {
  loom: (draft) =>
    room('#8d9a8c', '#5d5648') + loom(draft) + hand(236, 250, 12) + hand(420, 250, -14),
  shuttle: (draft) =>
    rect(0, 0, WIDE, TALL, draft.warp, 0) +
    times(54, (i) => line(`M${i * 12} 0 L${i * 12} 190`, '#00000022', 2)) +
    cloth(draft, 0, 190, WIDE, 170) +
    rect(0, 176, WIDE, 14, '#00000033', 0) +
    shuttle(330, 118, -6, draft) +
    hand(548, 196, -58),
  skeins: (draft) =>
    room('#c9b79c', '#8a6f4d') +
    rect(40, 74, 400, 14, DARK_WOOD) +
    skein(96, 152, draft.weft) +
    skein(188, 152, draft.warp) +
    skein(280, 152, '#c08a3e') +
    skein(372, 152, '#5c7a6d') +
    rect(0, 262, WIDE, 98, WOOD, 0) +
    group('translate(470 268)', skein(0, 0, draft.weft, 1.1)) +
    hand(548, 250, -24),
  vat: (draft) =>
    room('#a7b0a9', '#6b6256') +
    path('M150 150 L410 150 L386 340 L174 340 Z', '#3d3a37') +
    element('ellipse', { cx: 280, cy: 150, rx: 130, ry: 34, fill: draft.weft }) +
    element('ellipse', { cx: 262, cy: 146, rx: 70, ry: 14, fill: '#ffffff33' }) +
    line('M280 20 L280 96', DARK_WOOD, 10) +
    group('translate(280 104)', skein(0, 0, draft.weft, 0.9)) +
    hand(430, 66, -118),
  board: (draft) =>
    room('#b9a98e', '#73604a') +
    rect(120, 40, 350, 236, 'none') +
    rect(112, 36, 22, 250, DARK_WOOD) +
    rect(456, 36, 22, 250, DARK_WOOD) +
    rect(112, 36, 366, 20, WOOD) +
    rect(112, 266, 366, 20, WOOD) +
    times(4, (row) =>
      line(
        `M128 ${74 + row * 52} L464 ${100 + row * 52} ${row < 3 ? `L128 ${126 + row * 52}` : ''}`,
        row % 2 ? draft.warp : draft.weft,
        9
      )
    ) +
    times(4, (i) => element('circle', { cx: 124, cy: 74 + i * 52, r: 9, fill: INK })) +
    times(4, (i) => element('circle', { cx: 466, cy: 100 + i * 52, r: 9, fill: INK })) +
    hand(520, 172, -40),
  bobbin: (draft) =>
    rect(0, 0, 360, 640, '#d8c6a4', 0) +
    rect(0, 470, 360, 170, WOOD, 0) +
    rect(168, 110, 24, 380, DARK_WOOD, 10) +
    path('M180 170 C262 190 262 400 180 430 C98 400 98 190 180 170 Z', draft.weft) +
    times(15, (i) =>
      line(
        `M${118 + Math.abs(7 - i) * 3.4} ${194 + i * 15} L${242 - Math.abs(7 - i) * 3.4} ${184 + i * 15}`,
        '#ffffff55',
        3
      )
    ) +
    line('M236 250 C300 210 330 140 340 60', draft.weft, 5) +
    hand(270, 380, -30),
  draft: (draft) =>
    rect(0, 0, WIDE, TALL, '#8a7458', 0) +
    group(
      'rotate(-3 320 180)',
      rect(70, 26, 420, 312, '#f6f1e4', 6) +
        times(14, (x) =>
          times(4, (y) =>
            rect(
              98 + x * 18,
              52 + y * 18,
              15,
              15,
              draft.threading[x % draft.threading.length] === 3 - y ? INK : '#e2d9c4',
              2
            )
          )
        ) +
        times(4, (x) =>
          times(4, (y) =>
            rect(372 + x * 18, 52 + y * 18, 15, 15, draft.tieUp[x]?.[3 - y] ? INK : '#e2d9c4', 2)
          )
        ) +
        cloth(draft, 98, 138, 250, 180) +
        times(10, (y) =>
          times(4, (x) =>
            rect(
              372 + x * 18,
              138 + y * 18,
              15,
              15,
              draft.treadling[y % draft.treadling.length] === x ? INK : '#e2d9c4',
              2
            )
          )
        )
    ) +
    hand(560, 190, -34),
  reed: (draft) =>
    rect(0, 0, WIDE, TALL, '#6f7d78', 0) +
    rect(30, 70, 580, 26, WOOD) +
    rect(30, 224, 580, 26, WOOD) +
    times(64, (i) => rect(40 + i * 9, 92, 3, 136, '#d4d7d6', 1)) +
    times(30, (i) =>
      line(
        `M${52 + i * 18} 360 C${52 + i * 18} 280 ${47 + i * 18} 240 ${47 + i * 18} 160`,
        draft.warp,
        3
      )
    ) +
    line('M470 150 L600 44', DARK_WOOD, 9) +
    hand(590, 60, -140),
  blanket: (draft) =>
    room('#b7b3a6', '#7b705e') +
    cloth(draft, 60, 70, 360, 250) +
    path('M420 70 C470 110 452 220 480 320 L420 320 Z', draft.weft, { 'fill-opacity': 0.85 }) +
    times(24, (i) => line(`M${66 + i * 15} 320 L${62 + i * 15} 344`, draft.warp, 4)) +
    hand(500, 214, -56),
  hem: (draft) =>
    rect(0, 0, WIDE, TALL, '#e9e2d2', 0) +
    times(60, (i) =>
      line(
        `M${20 + i * 10} 0 L${20 + i * 10} 170`,
        draft.warp === '#f6f1e7' ? '#cdbfa4' : draft.warp,
        3
      )
    ) +
    cloth(draft, 0, 170, WIDE, 190) +
    times(16, (i) =>
      line(`M${24 + i * 38} 196 L${24 + i * 38} 158 L${52 + i * 38} 158`, draft.weft, 5)
    ) +
    line('M470 120 L640 60', '#8d9499', 7) +
    hand(520, 230, -26)
};

/** The scene of an upload as SVG, upright ones in their own shape. */
export function sceneSvg(
  { scene, draft, upright }: { scene: SceneName; draft: Draft; upright?: boolean },
  width: number,
  height: number
): string {
  const [w, h] = upright ? [TALL, WIDE] : [WIDE, TALL];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${w} ${h}" preserveAspectRatio="xMidYMid slice">${SCENES[scene](draft)}</svg>`;
}
