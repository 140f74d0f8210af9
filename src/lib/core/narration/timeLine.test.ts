import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { frameTimes } from './frameTimes.ts';
import type { SceneLayout } from './layout/mark.ts';
import { READABLE, type SpokenLine } from './line.ts';
import { sceneSchema, type Scene } from './scenes.ts';
import { setInTime, setToLength, shownAt } from './timeLine.ts';

const plain: SceneLayout = { stages: [], isMoving: false };
const line = (id: string, text: string) => ({ id, text, spoken: text, source: null });
const aScene = (id: string, more: object = {}): Scene =>
  sceneSchema.parse({
    id,
    kind: 'statement',
    lines: [line(`${id}.1`, 'We wind a warp.')],
    ...more
  });
const said = (...lines: [string, number][]): Map<string, SpokenLine> =>
  new Map(lines.map(([id, seconds]) => [id, { seconds, words: [] }]));

test('a card that nobody reads out stays until it can be read', () => {
  const text = 'A title that is longer than what is read in one second.';
  const scene = aScene('a', { kind: 'title', lines: [line('a.1', text)] });
  const { duration, scenes } = setInTime([scene], new Map(), [plain]);
  assert.ok(duration >= text.length / READABLE);
  assert.deepEqual(scenes[0]?.lines, []);
});

test('a recording of one’s own runs on without pauses between its lines', () => {
  const lines = [line('a.1', 'One.'), line('a.2', 'Two.')];
  const times = said(['a.1', 2], ['a.2', 2]);
  const gapOf = (scene: Scene) => {
    const [first, second] = setInTime([scene], times, [plain]).scenes[0]?.lines ?? [];
    return (second?.start ?? 0) - (first?.end ?? 0);
  };
  assert.equal(gapOf(aScene('a', { lines, recording: 'mine' })), 0);
  assert.ok(gapOf(aScene('a', { lines })) > 0.3);
});

test('the moment of a change is shown from then on', () => {
  const scenes = [aScene('a'), aScene('b')];
  const timeLine = setInTime(scenes, said(['a.1', 2], ['b.1', 2]), [plain, plain]);
  const second = timeLine.scenes[1]?.start ?? 0;
  assert.equal(shownAt(timeLine, 0).scene, 0);
  assert.equal(shownAt(timeLine, second - 0.01).scene, 0);
  assert.equal(shownAt(timeLine, second).scene, 1);
  assert.equal(shownAt(timeLine, timeLine.duration + 9).scene, 1);
});

const kinds = ['title', 'section', 'statement', 'list', 'quote', 'end'] as const;
const storyboards = fc
  .array(
    fc.record({
      kind: fc.constantFrom(...kinds),
      lines: fc.array(
        fc.record({
          length: fc.integer({ min: 1, max: 200 }),
          seconds: fc.option(fc.double({ min: 0.2, max: 20, noNaN: true }))
        }),
        { maxLength: 4 }
      ),
      hold: fc.double({ min: 0, max: 5, noNaN: true }),
      isMoving: fc.boolean()
    }),
    { minLength: 1, maxLength: 8 }
  )
  .map((drawn) => {
    const spoken = new Map<string, SpokenLine>();
    const scenes = drawn.map(({ kind, lines, hold }, i) =>
      aScene(`s${i}`, {
        kind,
        hold,
        lines: lines.map(({ length, seconds }, k) => {
          const id = `s${i}.${k}`;
          if (seconds !== null) spoken.set(id, { seconds, words: [] });
          return line(id, 'x'.repeat(length));
        })
      })
    );
    const layouts = drawn.map(({ isMoving }) => ({ stages: [], isMoving }));
    return setInTime(scenes, spoken, layouts);
  });

test('scenes follow each other without gaps, and their lines lie within them', () => {
  fc.assert(
    fc.property(storyboards, ({ duration, scenes }) => {
      let at = 0;
      for (const scene of scenes) {
        assert.equal(scene.start, at);
        assert.ok(scene.end - scene.start >= 1.2 - 1e-9);
        for (const { start, end } of scene.lines)
          assert.ok(start >= scene.start && end <= scene.end + 1e-9 && end > start);
        at = scene.end;
      }
      assert.equal(duration, at);
    })
  );
});

test('captions have their time: the next line waits for a reader of the one before', () => {
  fc.assert(
    fc.property(storyboards, ({ scenes }) => {
      const lines = scenes.flatMap((s) => s.lines);
      for (const [i, { text, start }] of lines.entries()) {
        const next = lines[i + 1];
        if (next) assert.ok(next.start - start >= text.length / READABLE - 1e-9);
      }
    })
  );
});

test('frames begin at 0, rise, and none stays for more than five seconds', () => {
  fc.assert(
    fc.property(storyboards, (timeLine) => {
      const times = timeLine.scenes.flatMap((scene) => frameTimes(scene, []));
      assert.equal(times[0], 0);
      for (const [i, time] of times.entries()) {
        const stays = (times[i + 1] ?? timeLine.duration) - time;
        assert.ok(stays > 0 && stays <= 5 + 1e-6, `${stays} s at ${time}`);
      }
    })
  );
});

test('pauses bring a video to the length that was asked for, where they can', () => {
  const scenes = Array.from({ length: 12 }, (_, i) => aScene(`s${i}`));
  const times = new Map(scenes.map((s) => [s.lines[0]!.id, { seconds: 4, words: [] }]));
  const layouts = scenes.map(() => plain);
  const pauses = { sentence: 0.35, part: 0.7 };
  const lengthFor = (target: number | null) =>
    setToLength(scenes, times, layouts, pauses, target).duration;
  const usual = lengthFor(null);
  for (const share of [0.97, 1, 1.05, 1.08])
    assert.ok(Math.abs(lengthFor(usual * share) / (usual * share) - 1) < 0.03, `${share}`);
  // What is far from it is another text, not another pause.
  assert.equal(lengthFor(usual * 2), usual);
  assert.equal(lengthFor(usual / 2), usual);
});

test('there is a breath between two paragraphs, and none within one', () => {
  const at = (id: string, block: number) => ({
    id,
    text: id,
    spoken: id,
    source: { block, from: 0, to: 1 }
  });
  const gapOf = (block: number) => {
    const scenes = [aScene('a', { lines: [at('a', 1)] }), aScene('b', { lines: [at('b', block)] })];
    const spoken = new Map(['a', 'b'].map((id) => [id, { seconds: 3, words: [] }]));
    const { scenes: timed } = setInTime(scenes, spoken, [plain, plain], { sentence: 0.5, part: 1 });
    return timed[1]!.lines[0]!.start - timed[0]!.lines[0]!.end;
  };
  assert.ok(Math.abs(gapOf(2) - gapOf(1) - 0.4) < 1e-9, `${gapOf(2)} and ${gapOf(1)}`);
});
