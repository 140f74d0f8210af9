import type { Box } from '../frames.ts';
import { qrRows } from '../qr.ts';
import type { Scene } from '../scenes.ts';
import { pageMoments, textOf } from './flow.ts';
import type { Mark, Stage } from './mark.ts';
import { divided, fit, inset, textMarks, type Setting } from './setting.ts';

/** Room between the code and the words. */
const GAP = 40;
/** Modules that stay empty around a code (ISO/IEC 18004). */
const QUIET_ZONE = 4;

/** The end card: where to read on, as words and as a QR code (ISO/IEC 18004). */
export function endStages(scene: Scene, setting: Setting): Stage[] {
  const { ink, quiet } = setting;
  const rows = scene.small ? qrRows(scene.small) : [];
  const [forWords, code] = rows.length > 0 ? wordsAndCode(setting.box) : [setting.box, null];
  const [upper, lower] = divided(forWords, 'y', 0.62, 0);
  const said = fit(textOf(scene), scene.small ? upper : forWords, setting, 600, 0.085);
  const written = fit(bareAddressOf(scene.small), lower, setting, 500, 0.05);
  const lengths = scene.lines.map((l, line) => ({ line, length: l.text.length }));
  const moments = pageMoments(lengths, said.pages);
  const address = scene.small
    ? textMarks(written.pages[0] ?? [], written, lower, setting, {
        weight: 500,
        colour: quiet,
        stand: 'top'
      })
    : [];
  return said.pages.map((lines, i) => ({
    ...(moments[i] ?? { line: 0, share: 0 }),
    marks: [
      ...(code ? codeMarks(code, rows) : []),
      ...textMarks(lines, said, scene.small ? upper : forWords, setting, {
        weight: 600,
        colour: ink
      }),
      ...address
    ]
  }));
}

/** The code on the right of a wide box, and at the foot of others. */
function wordsAndCode(box: Box): [Box, Box] {
  if (box.width > box.height) {
    const side = Math.round(Math.min(box.height * 0.7, box.width * 0.36));
    return [
      { ...box, width: box.width - side - GAP },
      { x: box.x + box.width - side, y: box.y + (box.height - side) / 2, width: side, height: side }
    ];
  }
  const side = Math.round(Math.min(box.width * 0.6, box.height * 0.45));
  return [
    { ...box, height: box.height - side - GAP },
    { x: box.x + (box.width - side) / 2, y: box.y + box.height - side, width: side, height: side }
  ];
}

function codeMarks(box: Box, rows: readonly (readonly boolean[])[]): Mark[] {
  const cell = box.width / (rows.length + QUIET_ZONE * 2);
  return [
    { kind: 'rect', move: 'shape', box, colour: '#ffffff', radius: 6 },
    { kind: 'cells', move: 'shape', box: inset(box, cell * QUIET_ZONE), rows, colour: '#000000' }
  ];
}

const bareAddressOf = (url: string): string =>
  url.replace(/^https?:\/\/(?:www\.)?/, '').replace(/\/$/, '');
