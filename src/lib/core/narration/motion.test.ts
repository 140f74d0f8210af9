import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { FRAMES } from './frames.ts';
import { MOVING_RATE } from './frameTimes.ts';
import { layOutScene } from './layout/layOut.ts';
import { momentsOf, paintedAt, type ScenePlan } from './moment.ts';
import { movesIn } from './motion.ts';
import { sceneSchema, type SceneKind } from './scenes.ts';
import { styleNameSchema, styleSchema, type Style } from './styles.ts';
import { roughMeasure } from './testing.ts';
import { setInTime } from './timeLine.ts';

function planned(kind: SceneKind, style: Style, seconds = 6): ScenePlan {
  const picture = { url: 'p', alt: '' };
  const scene = sceneSchema.parse({
    id: 'a',
    kind,
    lines: [
      { id: 'a.1', text: 'We wind a warp of 240 ends.', spoken: 'x', source: null },
      { id: 'a.2', text: 'We beam it with paper.', spoken: 'x', source: null }
    ],
    picture: kind === 'beside' ? picture : null,
    pieces:
      kind === 'figure'
        ? [
            { role: 'value', text: '240', line: 0, share: 0.4 },
            { role: 'unit', text: 'ends', line: 0, share: 0.4 },
            { role: 'meaning', text: 'We wind a warp of …', line: 0 }
          ]
        : [
            { role: 'main', text: 'We wind a warp', line: 0 },
            { role: 'main', text: 'We beam it', line: 1 }
          ]
  });
  const layout = layOutScene(scene, FRAMES.wide, style, roughMeasure);
  const said = new Map(scene.lines.map((l) => [l.id, { seconds: seconds / 2, words: [] }]));
  const timed = setInTime([scene], said, [layout]).scenes[0]!;
  return { layout, timed, lights: [] };
}
const styleOf = (name: Style['name'], motion: Style['motion'] = 'moving') =>
  styleSchema.parse({ name, motion });
const kinds = ['statement', 'list', 'figure', 'beside', 'quote'] as const;

test('while something moves there are 24 frames a second, else none but where the picture changes', () => {
  for (const name of styleNameSchema.options)
    for (const kind of kinds) {
      const scene = planned(kind, styleOf(name));
      const moves = movesIn(scene.layout, scene.timed, styleOf(name));
      const times = momentsOf(scene, styleOf(name));
      for (const [i, time] of times.entries()) {
        const next = times[i + 1];
        const isMoving = moves.some((m) => time >= m.from - 1e-6 && time < m.to - 1e-6);
        if (isMoving && next)
          assert.ok(next - time <= 1.51 / MOVING_RATE, `${kind} ${next - time}`);
        const isWanted =
          isMoving ||
          moves.some((m) => Math.abs(m.to - time) < 0.03) ||
          scene.timed.stages.some((t) => Math.abs(t - time) < 0.03) ||
          (time - (times[i - 1] ?? 0)).toFixed(3) === '5.000';
        assert.ok(isWanted, `${name} ${kind}: a frame at ${time} for nothing`);
      }
      for (const stage of scene.timed.stages)
        assert.ok(times.some((t) => t >= stage - 1e-6 && t <= stage + 1 / MOVING_RATE));
    }
});

test('calm, nothing moves: a frame for each change, each as it stays', () => {
  for (const kind of kinds) {
    const scene = planned(kind, styleOf('band', 'calm'));
    const times = momentsOf(scene, styleOf('band', 'calm'));
    assert.ok(times.length <= scene.timed.stages.length + 2);
    for (const time of times)
      for (const { opacity, scale, shift } of paintedAt(scene, time, styleOf('band', 'calm')))
        assert.deepEqual([opacity, scale, shift.x, shift.y], [1, 1, 0, 0]);
  }
});

test('what comes is fully there after at most 0.8 s, and gone when its scene ends', () => {
  for (const name of styleNameSchema.options) {
    const scene = planned('list', styleOf(name));
    const { start, end, stages } = scene.timed;
    const settled = paintedAt(scene, start + 0.8, styleOf(name));
    for (const { opacity, shown, shift } of settled)
      assert.deepEqual([opacity, shown.x, shift.x, shift.y], [1, 1, 0, 0], name);
    const last = paintedAt(scene, end - 1e-4, styleOf(name)).filter((m) => m.mark.move);
    assert.ok(last.length > 0 && last.every((m) => m.opacity < 0.01));
    // What was there before a stage stays where it was.
    const second = stages[1]!;
    const before = new Set(paintedAt(scene, second - 0.01, styleOf(name)).map((m) => m.mark));
    for (const moved of paintedAt(scene, second + 0.01, styleOf(name)))
      if (before.has(moved.mark)) assert.equal(moved.opacity, 1);
  }
});

test('a move has no jumps: from frame to frame no mark comes or goes by more than a third', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...styleNameSchema.options),
      fc.constantFrom(...kinds),
      fc.double({ min: 1.5, max: 20, noNaN: true }),
      (name, kind, seconds) => {
        const scene = planned(kind, styleOf(name), seconds);
        let before = new Map<object, number>();
        for (const time of momentsOf(scene, styleOf(name))) {
          const now = paintedAt(scene, time, styleOf(name));
          for (const { mark, opacity } of now) {
            const was = before.get(mark);
            if (was !== undefined)
              assert.ok(Math.abs(opacity - was) < 0.4, `${name} ${kind}: ${was} to ${opacity}`);
          }
          before = new Map(now.map(({ mark, opacity }) => [mark, opacity]));
        }
      }
    ),
    { numRuns: 60 }
  );
});

test('a figure counts up to its number', () => {
  const scene = planned('figure', styleOf('margin'));
  const said = scene.timed.stages[1]!;
  const texts = (seconds: number) =>
    paintedAt(scene, seconds, styleOf('margin')).flatMap(({ mark }) =>
      mark.kind === 'text' && /^\d+$/.test(mark.text) ? [Number(mark.text)] : []
    );
  const [early, late, there] = [texts(said + 0.05), texts(said + 0.2), texts(said + 1)];
  assert.ok(early[0]! < late[0]! && late[0]! < 240 + 1);
  assert.deepEqual(there, [240]);
});
