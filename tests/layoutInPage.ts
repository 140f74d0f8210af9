import { FRAMES, frameNameSchema } from '../src/lib/core/narration/frames.ts';
import { layOutScene } from '../src/lib/core/narration/layout/layOut.ts';
import { FAMILIES } from '../src/lib/core/narration/layout/setting.ts';
import { sceneKindSchema, sceneSchema } from '../src/lib/core/narration/scenes.ts';
import { styleNameSchema, styleSchema, typefaceSchema } from '../src/lib/core/narration/styles.ts';

const WORDS = [
  'Wind the warp',
  'Kettbaumvorrichtungsbefestigungsschraube',
  'Спряжение нити',
  'השתי והערב',
  'خيوط السداة',
  '経糸を巻く',
  '整經與穿綜',
  '날실을 감다',
  'ด้ายยืน',
  'ताना',
  'Ñandú',
  'fjord',
  'WAVE',
  'https://wrenfold.example/a/very/long/address',
  'a',
  'é',
  'supercalifragilisticexpialidocious',
  'und',
  '12,5 cm',
  '—',
  '“So”',
  'l’œuvre',
  'Τρίχα',
  'Lietuviškas žodis'
];

/** Numbers between 0 and 1, the same each time (mulberry32). */
function chances(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** Lays out random texts and looks whether any ink leaves the area where text may stand. */
export async function tryTexts(count: number): Promise<{ count: number; wrong: string[] }> {
  const chance = chances(7);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(chance() * list.length)] as T;
  const context = document.createElement('canvas').getContext('2d');
  if (!context) throw new Error('There is no canvas.');
  await Promise.all(
    Object.values(FAMILIES).flatMap((family) =>
      [500, 600, 700].map((weight) =>
        document.fonts.load(`${weight} 40px ${family}`, WORDS.join(''))
      )
    )
  );
  const fontOf = (f: { family: string; weight: number; size: number }) =>
    `${f.weight} ${f.size}px ${f.family}`;
  const wrong: string[] = [];
  let done = 0;
  for (; done < count; done++) {
    const frame = FRAMES[pick(frameNameSchema.options)];
    const kind = pick(sceneKindSchema.options.filter((k) => k !== 'picture'));
    const style = styleSchema.parse({
      name: pick(styleNameSchema.options),
      typeface: pick(typefaceSchema.options)
    });
    const text = () =>
      Array.from({ length: 1 + Math.floor(chance() * 40) }, () => pick(WORDS)).join(' ');
    const scene = sceneSchema.parse({
      id: 's',
      kind,
      small: text().slice(0, 120),
      lines: [0, 1].map((i) => ({ id: `${i}`, text: text(), spoken: 'x', source: null }))
    });
    const { stages } = layOutScene(scene, frame, style, (t, font) => {
      context.font = fontOf(font);
      const { width, actualBoundingBoxRight } = context.measureText(t);
      return Math.max(width, actualBoundingBoxRight);
    });
    for (const mark of stages.flatMap((s) => s.marks)) {
      if (mark.kind !== 'text' || mark.text === '“') continue;
      context.font = fontOf(mark.font);
      const ink = context.measureText(mark.text);
      const isCropped = kind === 'title' || kind === 'end';
      const { x, y, width, height } = isCropped ? frame.safe : frame.room;
      const left = mark.align === 'middle' ? mark.x - ink.width / 2 : mark.x;
      const isOut =
        left < x - 1 ||
        left + ink.width > x + width + 1 ||
        // Accents and descenders of scripts that no shipped font has may reach a little out.
        mark.y - mark.font.size > y + height ||
        mark.y > y + height + 1 ||
        mark.y - mark.font.size * 0.7 < y - 1 ||
        mark.font.size < frame.smallestType;
      if (isOut) wrong.push(`${frame.name} ${kind} ${style.name}: ${mark.text}`);
    }
  }
  return { count: done, wrong: wrong.slice(0, 5) };
}
