import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { captionsOf } from './captions.ts';
import { narrationChapters } from './chapters.ts';
import { fitText } from './fit.ts';
import { FRAMES, type Frame } from './frames.ts';
import { layOutScene, type Mark } from './layout.ts';
import { readHtml } from '../markup/html.ts';
import { postBlocks } from '../markup/postBlocks.ts';
import {
  joinScene,
  moveScene,
  proposeScenes,
  sceneSchema,
  splitScene,
  type Scene
} from './scenes.ts';
import { scriptOptionsSchema } from './line.ts';
import { writeScript } from './script.ts';
import { checkStyle, contrast, styleSchema, textOn } from './styles.ts';
import { roughMeasure } from './testing.ts';
import { frameTimes, setInTime, shownAt, type SpokenLine } from './timeLine.ts';

const HTML = `<p>Wind the warp. Keep it tight. Every turn of the beam takes a sheet of brown paper, and the paper must be wider than the warp, or the outer threads slip off its edge and go slack.</p>
<h2>The beam</h2><p>Look at the cross before you cut the ties, and look again after.</p><ul><li>Scissors</li><li>Paper, a little wider than the warp</li></ul>
<h2>The reed</h2><figure><img src="reed.png" alt="A reed"></figure><blockquote>Slow is quick.<cite>Juna</cite></blockquote><p>Count twice.</p>`;

function storyboard(html = HTML): Scene[] {
  const script = writeScript(
    { title: 'Beaming', blocks: postBlocks(readHtml(html)) },
    scriptOptionsSchema.parse({ language: 'en' })
  );
  return proposeScenes(script, { url: 'https://blog.example/beaming', by: 'Wrenfold' });
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

test('a storyboard: a card for each heading, list, picture and quotation; short sentences share one', () => {
  assert.deepEqual(
    storyboard().map((s) => [s.kind, s.lines.length]),
    [
      ['title', 1],
      ['sentence', 2],
      ['sentence', 1],
      ['section', 1],
      ['sentence', 1],
      ['list', 2],
      ['section', 1],
      ['picture', 0],
      ['quote', 1],
      ['sentence', 1],
      ['end', 1]
    ]
  );
});

test('scenes are joined, split and moved without losing a line', () => {
  const scenes = storyboard();
  const lines = (list: readonly Scene[]) => list.flatMap((s) => s.lines.map((l) => l.id)).sort();
  for (const changed of [
    joinScene(scenes, 2),
    splitScene(scenes, 1),
    splitScene(scenes, 5),
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
        const { line } = timed(scenes, FRAMES[frame], rate);
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
        const times = frameTimes(line);
        assert.equal(times[0], 0);
        assert.ok(times.every((t, k) => k === 0 || t > (times[k - 1] ?? 0)));
        for (const scene of line.scenes)
          for (const stage of scene.stages)
            if (stage < scene.end) assert.ok(times.some((t) => Math.abs(t - stage) < 1e-9));
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

function overflow(marks: readonly Mark[], frame: Frame): string | null {
  for (const mark of marks) {
    if (mark.kind !== 'text' || mark.text === '“') continue;
    const width = roughMeasure(mark.text, mark.font);
    const left = mark.align === 'middle' ? mark.x - width / 2 : mark.x;
    const { x, y, width: w, height: h } = frame.safe;
    const top = mark.y - mark.font.size * 0.8;
    if (left < x - 0.5 || left + width > x + w + 0.5) return `${mark.text} is too wide`;
    if (top < y - 1 || mark.y + mark.font.size * 0.3 > y + h + 1)
      return `${mark.text} is too high or too low`;
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

test('200 random texts in many languages: no overflow, nothing too small, nothing left out', () => {
  const text = fc.array(fc.constantFrom(...SAMPLES), { minLength: 1, maxLength: 60 });
  fc.assert(
    fc.property(
      text,
      fc.constantFrom('wide' as const, 'upright' as const, 'square' as const),
      fc.constantFrom(
        'title' as const,
        'section' as const,
        'sentence' as const,
        'list' as const,
        'quote' as const,
        'end' as const
      ),
      fc.constantFrom('margin' as const, 'band' as const, 'sheet' as const),
      fc.constantFrom('serif' as const, 'sans' as const, 'mono' as const),
      (words, name, kind, style, typeface) => {
        const frame = FRAMES[name];
        const half = Math.ceil(words.length / 2);
        const texts = [words.slice(0, half).join(' '), words.slice(half).join(' ')].filter(Boolean);
        const scene = sceneSchema.parse({
          id: 's',
          kind,
          small: words.slice(0, 9).join('/'),
          lines: texts.map((t, i) => ({ id: `${i}`, text: t, spoken: 'x', source: null }))
        });
        const { stages } = layOutScene(
          scene,
          frame,
          styleSchema.parse({ name: style, typeface }),
          roughMeasure
        );
        assert.ok(stages.length > 0);
        for (const stage of stages) assert.equal(overflow(stage.marks, frame), null);
        const shown = new Set<Mark>(stages.flatMap((s) => s.marks));
        const letters = (s: string) => s.replace(/\s/g, '').length;
        const all = [...shown].reduce(
          (sum, m) => sum + (m.kind === 'text' ? letters(m.text) : 0),
          0
        );
        assert.ok(all >= texts.reduce((sum, t) => sum + letters(t), 0));
      }
    ),
    { numRuns: 200 }
  );
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
