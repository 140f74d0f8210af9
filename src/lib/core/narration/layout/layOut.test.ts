import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { FRAMES, frameNameSchema, type Frame } from '../frames.ts';
import { sceneKindSchema, sceneSchema, type Piece, type Scene, type SceneKind } from '../scenes.ts';
import { contrast, styleNameSchema, styleSchema, typefaceSchema } from '../styles.ts';
import { roughMeasure } from '../testing.ts';
import { LIGHTS_ROOM } from './grounds.ts';
import { layOutScene } from './layOut.ts';
import type { Mark } from './mark.ts';
import { lightsOf } from './wordLights.ts';

function overflow(marks: readonly Mark[], frame: Frame, kind: SceneKind, foot = 0): string | null {
  for (const mark of marks) {
    if (mark.kind !== 'text' || mark.text === '“') continue;
    const width = roughMeasure(mark.text, mark.font);
    const left = mark.align === 'middle' ? mark.x - width / 2 : mark.x;
    const {
      x,
      y,
      width: w,
      height: h
    } = kind === 'title' || kind === 'end' ? frame.safe : frame.room;
    const top = mark.y - mark.font.size * 0.8;
    const end = Math.min(y + h, frame.height - foot);
    if (left < x - 0.5 || left + width > x + w + 0.5) return `${mark.text} is too wide`;
    if (top < y - 1 || mark.y + mark.font.size * 0.27 > end + 1)
      return `${mark.text} is too high or too low: ${mark.y} of ${y} to ${end}`;
    if (mark.font.size < frame.smallestType) return `${mark.text} is too small`;
  }
  return null;
}

const SAMPLES = [
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
  'https://wrenfold.example/a/very/long/address',
  '🧵🧶',
  'Ñandú',
  'a',
  'e\u0301te\u0301',
  'supercalifragilisticexpialidocious',
  'und',
  'der',
  '12,5 cm',
  '—',
  '“So”'
];
const words = (most: number) =>
  fc.array(fc.constantFrom(...SAMPLES), { minLength: 1, maxLength: most }).map((w) => w.join(' '));

const ROLES: Partial<Record<SceneKind, Piece['role'][]>> = {
  figure: ['value', 'unit', 'meaning'],
  comparison: ['label', 'point', 'label', 'point'],
  question: ['question', 'answer'],
  term: ['term', 'meaning'],
  map: ['part', 'part', 'part', 'part'],
  table: ['cell', 'cell', 'cell', 'cell', 'cell', 'cell'],
  chart: ['cell', 'cell', 'cell', 'cell', 'cell', 'cell']
};

/** A scene of any kind, with pieces of its own or none, of few words or many. */
const scenes = fc
  .record({
    kind: fc.constantFrom(...sceneKindSchema.options),
    texts: fc.array(words(30), { minLength: 1, maxLength: 2 }),
    pieces: fc.array(words(6), { minLength: 6, maxLength: 6 }),
    isShort: fc.boolean(),
    hasPieces: fc.boolean(),
    small: words(9),
    at: fc.nat(3)
  })
  .map(({ kind, texts, pieces, isShort, hasPieces, small, at }): Scene => {
    const roles = ROLES[kind] ?? ['main', 'main', 'main'];
    const picture = { url: 'p', alt: 'a' };
    return sceneSchema.parse({
      id: 's',
      kind,
      small,
      at,
      columns: 2,
      picture: /picture|beside|before/.test(kind) ? picture : null,
      second: kind === 'before-after' ? picture : null,
      lines: texts.map((text, i) => ({ id: `${i}`, text, spoken: 'x', source: null })),
      pieces: hasPieces
        ? roles.map((role, i) => ({
            role,
            text:
              kind === 'chart' && i > 2 && i % 2 === 1
                ? `${i * 40 + at} m`
                : isShort
                  ? SAMPLES[pieces[i]!.length % SAMPLES.length]!
                  : pieces[i]!,
            line: i % texts.length,
            share: i / 10
          }))
        : []
    });
  });

const looks = fc.record({
  name: fc.constantFrom(...styleNameSchema.options),
  typeface: fc.constantFrom(...typefaceSchema.options),
  wordLights: fc.boolean(),
  lowerThird: fc.constantFrom({ name: '', line: '' }, { name: 'Isolde Wrenfold', line: 'Weaver' })
});
const frames = fc.constantFrom(...frameNameSchema.options);

test('500 random texts in every kind of scene, shape and style: no overflow, nothing too small', () => {
  fc.assert(
    fc.property(scenes, looks, frames, (scene, look, name) => {
      const frame = FRAMES[name];
      const style = styleSchema.parse(look);
      const { stages } = layOutScene(
        scene,
        frame,
        style,
        roughMeasure,
        look.lowerThird.name !== ''
      );
      assert.ok(stages.length > 0);
      const foot = look.wordLights ? frame.height * LIGHTS_ROOM[name] : 0;
      for (const stage of stages)
        assert.equal(
          overflow(stage.marks, frame, scene.kind, foot),
          null,
          `${scene.kind} ${name} ${look.name}`
        );
      for (const [i, { line, share }] of stages.entries()) {
        assert.ok(line >= 0 && line < scene.lines.length && share >= 0 && share <= 1);
        const before = stages[i - 1];
        if (before && scene.pieces.length === 0)
          assert.ok(line > before.line || (line === before.line && share >= before.share));
      }
    }),
    { numRuns: 500 }
  );
});

test('what a scene shows is shown whole: its pieces, or its sentences where it has none', () => {
  fc.assert(
    fc.property(scenes, looks, frames, (scene, look, name) => {
      // A picture by itself has no words, a map has bars where its names do not fit.
      if (scene.kind === 'picture' || scene.kind === 'map' || scene.kind === 'end') return;
      const { stages } = layOutScene(scene, FRAMES[name], styleSchema.parse(look), roughMeasure);
      const letters = (s: string) => s.replace(/\s/g, '').length;
      const shown = new Set(stages.flatMap((s) => s.marks));
      const all = [...shown].reduce((sum, m) => sum + (m.kind === 'text' ? letters(m.text) : 0), 0);
      const usesLines =
        ['title', 'section', 'quote'].includes(scene.kind) || scene.pieces.length === 0;
      const sentences = scene.lines.reduce((sum, l) => sum + letters(l.text), 0);
      // Of the heads of a table, a chart shows one, as far as it has room.
      const told = scene.kind === 'chart' ? scene.pieces.slice(2) : scene.pieces;
      const pieces = told.reduce((sum, p) => sum + letters(p.text), 0);
      // What has no room in its own form is told as a list of the sentences.
      assert.ok(all >= (usesLines ? sentences : Math.min(pieces, sentences)), `${all}`);
    }),
    { numRuns: 300 }
  );
});

test('every style is easy to read in any colour: 4.5 to 1 for words, 3 to 1 for large figures', () => {
  const colours = fc
    .integer({ min: 0, max: 0xffffff })
    .map((n) => `#${n.toString(16).padStart(6, '0')}`);
  fc.assert(
    fc.property(scenes, looks, frames, colours, colours, (scene, look, name, ground, accent) => {
      const frame = FRAMES[name];
      const { stages } = layOutScene(
        scene,
        frame,
        styleSchema.parse({ ...look, ground, accent }),
        roughMeasure
      );
      for (const { marks } of stages)
        for (const [i, mark] of marks.entries()) {
          if (mark.kind !== 'text' || mark.text === '“') continue;
          const under = marks
            .slice(0, i)
            .findLast(
              (m) =>
                m.kind === 'rect' &&
                mark.x >= m.box.x &&
                mark.x <= m.box.x + m.box.width &&
                mark.y <= m.box.y + m.box.height &&
                mark.y - mark.font.size * 0.5 >= m.box.y
            );
          if (under?.kind !== 'rect') continue;
          const least = mark.font.size >= 40 && mark.font.weight >= 700 ? 3 : 4.5;
          const ratio = contrast(under.colour, mark.colour);
          assert.ok(ratio >= least - 0.01, `${scene.kind} ${look.name}: ${ratio} for ${mark.text}`);
        }
    }),
    { numRuns: 300 }
  );
});

test('words that light up stay in the frame, one of them lit, each at its time', () => {
  fc.assert(
    fc.property(words(30), frames, looks, (text, name, look) => {
      const frame = FRAMES[name];
      const count = text.split(/\s+/).filter(Boolean).length;
      const times = Array.from({ length: count }, (_, i) => 2 + i * 0.3);
      const line = { id: 'l', text, start: 2, end: 2 + count * 0.3, words: times };
      const lights = lightsOf(line, frame, styleSchema.parse(look), roughMeasure);
      assert.deepEqual(
        lights.map((l) => l.at),
        times
      );
      for (const { marks } of lights) {
        const lit = marks.filter((m) => m.kind === 'rect');
        assert.equal(lit.length, 2);
        for (const mark of marks) {
          if (mark.kind !== 'text') continue;
          assert.ok(mark.x >= 0 && mark.x + roughMeasure(mark.text, mark.font) <= frame.width + 1);
          assert.ok(mark.y > frame.height * 0.7 && mark.y < frame.height);
        }
      }
    }),
    { numRuns: 100 }
  );
});
