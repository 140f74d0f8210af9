import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { readHtml } from '../../markup/html.ts';
import { postBlocks } from '../../markup/postBlocks.ts';
import { scriptOptionsSchema } from '../line.ts';
import type { Scene, SceneKind } from '../scenes.ts';
import { writeScript } from '../script.ts';
import { directScenes } from './direct.ts';
import { gistOf } from './gist.ts';
import { piecesFor } from './pieces.ts';
import { readSentence } from './sentence.ts';

function direct(html: string, language = 'en', words: 'gist' | 'sentence' = 'gist'): Scene[] {
  const blocks = postBlocks(readHtml(html));
  const script = writeScript(
    { title: 'Beaming', blocks },
    scriptOptionsSchema.parse({ language, words })
  );
  return directScenes(script, { language, words, url: 'https://blog.example/beaming', by: 'Wren' });
}
const kinds = (scenes: readonly Scene[]): SceneKind[] =>
  scenes.slice(1, -1).map((scene) => scene.kind);
const shown = (scene: Scene | undefined): string[] => scene?.pieces.map((p) => p.text) ?? [];
const gist = (text: string, language = 'en'): string[] =>
  gistOf(readSentence(text, language)).map((p) => p.text);

test('a gist keeps figures and nouns, and what is done with them', () => {
  assert.deepEqual(gist('So we wind one long warp.'), ['We wind one long warp']);
  assert.deepEqual(gist('It was beamed without paper, and the layers sank into one another.'), [
    'Beamed without paper',
    'The layers sank into one another'
  ]);
  const sum = gist(
    'Twelve scarves of 1.70 metres and the fringes need 25 metres of warp, which is about 5,400 metres of yarn.'
  );
  assert.ok(
    sum.some((phrase) => /1\.70 metres|25 metres|5,400/.test(phrase)),
    sum.join(' | ')
  );
});

test('a gist never turns what is said into its opposite', () => {
  const said = gist('If it lies too short in the dew of the field, the fibre does not come off.');
  assert.ok(said.includes('The fibre does not come off'), said.join(' | '));
  for (const phrase of gist(
    'The paper that we tried last was never wide enough for the whole warp.'
  ))
    assert.doesNotMatch(phrase, /^Wide enough/);
});

test('only what leads into a sentence is left out at its head', () => {
  assert.deepEqual(gist('You see, the warp is too tight.'), ['The warp is too tight']);
  assert.deepEqual(gist('You see the warp at night.'), ['You see the warp at night']);
});

test('German nouns are known by their capitals', () => {
  assert.deepEqual(gist('Bei jeder Umdrehung legen wir einen Bogen Papier ein.', 'de'), [
    'Bei jeder Umdrehung legen wir einen Bogen Papier ein'
  ]);
  const long = gist(
    'Wenn die Kette auf dem Baum liegt, prüfen wir die Spannung mit der flachen Hand und zählen dann die Fäden.',
    'de'
  );
  assert.ok(long.length > 0 && long.join(' ').split(' ').length < 10, long.join(' | '));
});

const texts = fc
  .array(
    fc.constantFrom(
      ...'the a warp of wool cotton 12 metres is not we wind beam and because it two light dark if without paper, slowly. threads when that you take 40 % red'.split(
        ' '
      )
    ),
    { minLength: 1, maxLength: 40 }
  )
  .map((words) => words.join(' '));

test('every gist is shorter than ten words, all of them words of its sentence in their order', () => {
  fc.assert(
    fc.property(texts, (text) => {
      const phrases = gist(text);
      const words = phrases.flatMap((p) => p.split(' '));
      assert.ok(words.length < 10);
      let rest = text.toLowerCase();
      for (const word of words) {
        const at = rest.indexOf(word.toLowerCase());
        assert.ok(at >= 0, `${word} in ${text}`);
        rest = rest.slice(at + word.length);
      }
    }),
    { numRuns: 300 }
  );
});

test('what is said decides what is seen', () => {
  const cases: [string, SceneKind][] = [
    ['Which yarn would you take for it? Take the one that you have least of.', 'question'],
    ['A warp is a set of threads of the same length.', 'term'],
    ['Dark means that you hold it to the window. Light means that it looks pale.', 'comparison'],
    ['An empty dent is a bright line and a crowded dent is a dark line.', 'comparison'],
    ['We brought home 800 grams of flax from the field.', 'figure'],
    ['The shuttle goes from hand to hand.', 'statement']
  ];
  for (const [text, kind] of cases) assert.deepEqual(kinds(direct(`<p>${text}</p>`)), [kind], text);
});

test('of two things that do something to somebody, what they do is shown', () => {
  const text = 'The first gave us sore shoulders, and the second gave us scarves that came back.';
  const points = piecesFor('comparison', [text], 'en') ?? [];
  assert.deepEqual(
    points.filter((p) => p.role === 'point').map((p) => p.text),
    ['Gave us sore shoulders', 'Gave us scarves that came back']
  );
});

test('a figure has its number and its unit apart, and says what of', () => {
  assert.deepEqual(shown(direct('<p>We brought home 800 grams of flax from the field.</p>')[1]), [
    '800',
    'grams',
    'Brought home … of flax from the field'
  ]);
  // Neither years nor small words are figures.
  for (const text of [
    'The loom was built in 1932 by a carpenter.',
    'One of us always forgets the ties.'
  ])
    assert.equal(piecesFor('figure', [text], 'en'), null, text);
});

test('lists build, steps count, tables come by rows, quotations keep their words', () => {
  const scenes = direct(
    `<ul><li>Scissors</li><li>Paper</li></ul><ol><li>Wind it.</li><li>Tie it.</li></ol>
     <table><tr><th>Yarn</th><th>Sett</th></tr><tr><td>Wool</td><td>6</td></tr><tr><td>Linen</td><td>9</td></tr></table>
     <blockquote>Slow is quick.<cite>Juna</cite></blockquote>`
  );
  // A column of numbers alone is seen best as bars.
  assert.deepEqual(kinds(scenes), ['list', 'steps', 'chart', 'quote']);
  assert.deepEqual(shown(scenes[3]), ['Yarn', 'Sett', 'Wool', '6', 'Linen', '9']);
  assert.deepEqual(
    scenes[3]?.lines.map((l) => l.text),
    ['Wool: Sett 6.', 'Linen: Sett 9.']
  );
  assert.deepEqual([scenes[4]?.small, scenes[4]?.pieces], ['Juna', []]);
});

test('three headings and more stand on a map, each in its place', () => {
  const html = ['Board', 'Cross', 'Chain'].map((t) => `<h2>${t}</h2><p>Wind it well.</p>`).join('');
  const maps = direct(html).filter((s) => s.kind === 'map');
  assert.deepEqual(
    maps.map((s) => [s.lines[0]?.text, s.at, shown(s).length]),
    [
      ['Board', 0, 3],
      ['Cross', 1, 3],
      ['Chain', 2, 3]
    ]
  );
});

test('a picture is shown once, beside the sentence that it belongs to', () => {
  const scenes = direct(
    `<p>The board gives the length. The red skeins hang in the window. We count them.</p>
     <img src="skeins.png" alt="Red skeins on a rail in a window">`
  );
  const pictured = scenes.filter((s) => s.picture);
  assert.deepEqual(
    pictured.map((s) => [s.kind, s.lines[0]?.text]),
    [['beside', 'The red skeins hang in the window.']]
  );
  const pair = direct(
    `<p>The cloth shrinks by a tenth.</p><img src="a.png" alt="The cloth before washing"><img src="b.png" alt="The cloth after washing">`
  );
  assert.deepEqual(kinds(pair), ['before-after']);
  assert.deepEqual([pair[1]?.picture?.url, pair[1]?.second?.url], ['a.png', 'b.png']);
});

const posts = fc
  .array(
    fc.constantFrom(
      '<h2>A part</h2>',
      '<p>The shuttle goes from hand to hand. We beat it twice. Then it rests on the beam.</p>',
      '<p>Dark means that you hold it to the window. Light means that it looks pale.</p>',
      '<p>Is it wide enough? It is 40 centimetres wide.</p>',
      '<ul><li>Scissors</li><li>Paper, a little wider than the warp</li></ul>',
      '<ol><li>Wind it.</li><li>Tie it.</li></ol>',
      '<img src="x.png" alt="The beam"><img src="y.png" alt="">',
      '<blockquote>Slow is quick.</blockquote>',
      '<table><tr><th>A</th><th>B</th></tr><tr><td>1</td><td>2</td></tr></table>',
      '<p>Because the weft takes up more than the warp wherever the pattern floats for longer than the cloth around it can hold, the stripe hangs loose, the next one pulls tight, and the whole edge begins to walk to the left.</p>'
    ),
    { maxLength: 12 }
  )
  .map((blocks) => blocks.join(''));

test('whatever the post: every line once, every picture once, and pieces of the lines they are shown with', () => {
  fc.assert(
    fc.property(posts, fc.constantFrom('gist' as const, 'sentence' as const), (html, words) => {
      const blocks = postBlocks(readHtml(html));
      const options = scriptOptionsSchema.parse({ language: 'en', words });
      const { parts } = writeScript({ title: 'Beaming', blocks }, options);
      const scenes = direct(html, 'en', words);
      assert.deepEqual(
        scenes.flatMap((s) => s.lines.map((l) => l.id)),
        parts.flatMap((p) => p.lines.map((l) => l.id))
      );
      const pictures = scenes.flatMap((s) => [s.picture, s.second].flatMap((p) => p?.url ?? []));
      assert.equal(pictures.length, parts.filter((p) => p.kind === 'picture').length);
      assert.equal(new Set(scenes.map((s) => s.id)).size, scenes.length);
      for (const scene of scenes)
        for (const { line } of scene.pieces) assert.ok(line < Math.max(1, scene.lines.length));
    }),
    { numRuns: 100 }
  );
});

test('no more than two of a kind follow each other where another kind fits', () => {
  const html = `<p>${'The shuttle goes from hand to hand. We beat the weft twice. It rests on the beam. '.repeat(3)}</p>`;
  const row = kinds(direct(html));
  for (const [i, kind] of row.entries())
    assert.ok(kind !== row[i - 1] || kind !== row[i - 2], row.join(' '));
});

test('a figure that is said early does not stand through all that follows', () => {
  const text =
    'A scarf is 1.70 metres, so it is 105 before it has been photographed, packed, sold at a stall that costs 90 a day, or not sold.';
  const [scene] = direct(`<p>${text}</p>`).slice(1, -1);
  assert.equal(scene?.kind, 'statement');
  assert.ok(scene.pieces.some((p) => p.share > 0.3));
  // What is said of it before it is told is seen until then; a number at the front is there at once.
  const late = piecesFor('figure', ['We brought home and dried 800 grams of flax.'], 'en') ?? [];
  assert.ok(late[0]!.share > 0.3);
  const early =
    piecesFor('figure', ['About 800 grams of flax came home and were dried.'], 'en') ?? [];
  assert.equal(early[0]?.share, 0);
});

test('of three long sentences that state something, one builds like a list', () => {
  const html = `<p>${[
    'People ask me about the tension, and there are weavers who measure it with a spring balance, and they may weave better cloth than I do.',
    'But I press it with my hand, and I bend it a little bit across the breast beam, and you feel that it is stiff in one direction.',
    'If the beam is holding it, then you are sitting there at ten in the evening, and you are tired, and you forget why it slipped.'
  ].join(' ')}</p>`;
  const row = kinds(direct(html));
  assert.equal(row.length, 3);
  assert.notDeepEqual(row, ['statement', 'statement', 'statement']);
});
