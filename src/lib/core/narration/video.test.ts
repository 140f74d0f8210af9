import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { parseWebVtt, writeWordTimedWebVtt } from '../captions/webvtt.ts';
import { captionsOf } from './captions.ts';
import { narrationChapters } from './chapters.ts';
import { fitText } from './fit.ts';
import { FRAMES, type Frame } from './frames.ts';
import { layOutScene } from './layout/layOut.ts';
import { readHtml } from '../markup/html.ts';
import { postBlocks } from '../markup/postBlocks.ts';
import { directScenes } from './direct/direct.ts';
import { momentsOf } from './moment.ts';
import { joinScene, moveScene, splitScene, type Scene } from './scenes.ts';
import { scriptOptionsSchema, type SpokenLine } from './line.ts';
import { writeScript } from './script.ts';
import { checkStyle, contrast, styleSchema, textOn } from './styles.ts';
import { roughMeasure } from './testing.ts';
import { setInTime, shownAt } from './timeLine.ts';

const HTML = `<p>Wind the warp. Keep it tight. Every turn of the beam takes a sheet of brown paper, and the paper must be wider than the warp, or the outer threads slip off its edge and go slack.</p>
<h2>The beam</h2><p>Look at the cross before you cut the ties, and look again after.</p><ul><li>Scissors</li><li>Paper, a little wider than the warp</li></ul>
<h2>The reed</h2><figure><img src="reed.png" alt="A reed"></figure><blockquote>Slow is quick.<cite>Juna</cite></blockquote><p>Count twice.</p>`;

function storyboard(html = HTML): Scene[] {
  const script = writeScript(
    { title: 'Beaming', blocks: postBlocks(readHtml(html)) },
    scriptOptionsSchema.parse({ language: 'en' })
  );
  return directScenes(script, {
    language: 'en',
    words: 'gist',
    url: 'https://blog.example/beaming',
    by: 'Wrenfold'
  });
}
const say = (scenes: readonly Scene[], rate = 15): Map<string, SpokenLine> =>
  new Map(
    scenes.flatMap((s) =>
      s.lines.flatMap((l) =>
        l.spoken ? [[l.id, { seconds: l.spoken.length / rate, words: [] }] as const] : []
      )
    )
  );
function timed(scenes: Scene[], frame: Frame = FRAMES.wide, rate = 15) {
  const layouts = scenes.map((s) => layOutScene(s, frame, styleSchema.parse({}), roughMeasure));
  return { layouts, line: setInTime(scenes, say(scenes, rate), layouts) };
}

test('scenes are joined, split and moved without losing a line', () => {
  const scenes = storyboard();
  const lines = (list: readonly Scene[]) => list.flatMap((s) => s.lines.map((l) => l.id)).sort();
  for (const changed of [
    joinScene(scenes, 2),
    ...scenes.map((_, i) => splitScene(scenes, i)),
    moveScene(scenes, 4, 1)
  ])
    assert.deepEqual(lines(changed), lines(scenes));
  assert.deepEqual(moveScene(scenes, 0, 99), scenes);
  assert.equal(joinScene(scenes, 0).length, scenes.length);
});

test('times rise, nothing overlaps, and no scene is shorter than its speech', () => {
  const html = fc.array(
    fc.constantFrom(
      '<h2>Part</h2>',
      '<p>One. Two, three and four. Is it five?</p>',
      '<ol><li>a b</li><li>c</li></ol>',
      '<img src="x.png" alt="x">',
      '<blockquote>So.</blockquote>',
      `<p>${'warp and weft '.repeat(60)}.</p>`
    ),
    { maxLength: 12 }
  );
  fc.assert(
    fc.property(
      html,
      fc.constantFrom('wide', 'upright', 'square'),
      fc.integer({ min: 5, max: 30 }),
      (blocks, frame, rate) => {
        const scenes = storyboard(blocks.join(''));
        const { line, layouts } = timed(scenes, FRAMES[frame], rate);
        let at = 0;
        for (const [i, scene] of line.scenes.entries()) {
          assert.equal(scene.start, at);
          const said = scene.lines.reduce((sum, l) => sum + l.end - l.start, 0);
          assert.ok(scene.end - scene.start >= said);
          let before = scene.start;
          for (const l of scene.lines) {
            assert.ok(l.start >= before && l.end > l.start && l.end <= scene.end);
            before = l.end;
          }
          assert.ok(
            scene.stages.every(
              (t, k) => t >= (scene.stages[k - 1] ?? scene.start) && t <= scene.end
            )
          );
          assert.equal(scene.lines.length, scenes[i]?.lines.filter((l) => l.spoken).length);
          at = scene.end;
        }
        assert.equal(line.duration, at);
        const calm = styleSchema.parse({ motion: 'calm' });
        const times = line.scenes.flatMap((scene, i) =>
          momentsOf({ layout: layouts[i]!, timed: scene, lights: [] }, calm)
        );
        assert.equal(times[0], 0);
        assert.ok(times.every((t, k) => k === 0 || t > (times[k - 1] ?? 0)));
        for (const scene of line.scenes)
          for (const stage of scene.stages)
            if (stage < scene.end - 1 / 24)
              assert.ok(times.some((t) => t >= stage - 1e-9 && t - stage < 1 / 24));
      }
    ),
    { numRuns: 100 }
  );
});

test('captions: two lines of 42 characters, 17 characters a second, each sentence at its start', () => {
  for (const rate of [10, 15, 22]) {
    const { line } = timed(storyboard(), FRAMES.wide, rate);
    const cues = captionsOf(line);
    const starts = line.scenes.flatMap((s) => s.lines.map((l) => l.start));
    for (const start of starts) assert.ok(cues.some((c) => c.start === start));
    for (const [i, cue] of cues.entries()) {
      const rows = cue.text.split('\n');
      assert.ok(rows.length <= 2 && rows.every((r) => [...r].length <= 42));
      assert.ok([...cue.text].length / (cue.end - cue.start) <= 17.001, `${cue.text} at ${rate}`);
      assert.ok(cue.end <= (cues[i + 1]?.start ?? Infinity) + 1e-9);
    }
    const said = line.scenes.flatMap((s) => s.lines.map((l) => l.text)).join(' ');
    assert.equal(cues.map((c) => c.text.replace('\n', ' ')).join(' '), said);
  }
});

test('captions have the time of each word, within their cue and readable again', () => {
  const { line } = timed(storyboard(), FRAMES.wide, 12);
  const cues = captionsOf(line);
  for (const { text, words, start } of cues) {
    assert.equal(words.length, text.split(/\s+/).length);
    for (const [i, t] of words.entries()) assert.ok(t >= (words[i - 1] ?? start - 3));
  }
  const written = writeWordTimedWebVtt(cues);
  assert.match(written, /Look <00:00:\d\d\.\d{3}>at <00:00:\d\d\.\d{3}>the/);
  // What reads WebVTT reads the same words from it.
  assert.deepEqual(
    parseWebVtt(written).cues.map((c) => c.text.replace(/<[^>]+>/g, '')),
    cues.map((c) => c.text)
  );
});

test('chapters come from headings and keep the rules for them', () => {
  const scenes = storyboard(
    ['Beam', 'Reed', 'Heddles', 'End']
      .map(
        (t) => `<h2>${t}</h2><p>${'Wind the warp with care. '.repeat(t === 'Reed' ? 1 : 12)}</p>`
      )
      .join('')
  );
  const { line } = timed(scenes);
  const chapters = narrationChapters(scenes, line);
  assert.equal(chapters[0]?.start, 0);
  assert.ok(chapters.length >= 3);
  chapters.forEach((c, i) => assert.ok((chapters[i + 1]?.start ?? line.duration) - c.start >= 10));
  assert.deepEqual(
    narrationChapters(storyboard('<p>Short.</p>'), timed(storyboard('<p>Short.</p>')).line),
    []
  );
});

test('what is shown at a moment', () => {
  const { line } = timed(storyboard());
  for (const [i, scene] of line.scenes.entries()) {
    assert.equal(shownAt(line, scene.start).scene, i);
    assert.equal(shownAt(line, (scene.start + scene.end) / 2).scene, i);
  }
  assert.equal(shownAt(line, 1e9).scene, line.scenes.length - 1);
});

test('a text that fits is one page; one that does not is paged at the floor', () => {
  const options = {
    width: 600,
    height: 300,
    family: 'serif',
    weight: 500,
    largest: 80,
    smallest: 30,
    lineHeight: 1.3
  };
  const short = fitText('Wind the warp', options, roughMeasure);
  assert.equal(short.pages.length, 1);
  assert.ok(short.size > 60);
  const long = fitText('warp and weft '.repeat(60), options, roughMeasure);
  assert.equal(long.size, 30);
  assert.ok(long.pages.length > 1);
});

test('text is always easy to read on its ground; a faint accent is reported', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 0xffffff }), (n) => {
      const ground = `#${n.toString(16).padStart(6, '0')}`;
      assert.ok(contrast(ground, textOn(ground)) >= 4.5);
    })
  );
  assert.deepEqual(checkStyle(styleSchema.parse({})), []);
  assert.equal(
    checkStyle(styleSchema.parse({ ground: '#222222', accent: '#333333' }))[0]?.kind,
    'accent-faint'
  );
});
