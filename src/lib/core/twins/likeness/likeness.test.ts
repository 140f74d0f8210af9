import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import type { Catalogue } from '../../../../../bin/train/catalogue/catalogue.ts';
import { judge } from '../../../../../bin/train/catalogue/judge.ts';
import { heldOutMixtures, heldOutThinned } from '../../../../../bin/train/catalogue/sets.ts';
import type { Item } from '../../model/item.ts';
import { anItem } from '../../testing.ts';
import { assign } from './assign.ts';
import { corpusOf } from './corpus.ts';
import { proposePairs } from './propose.ts';
import { speaksFor } from './reasons.ts';
import { partOf } from './series.ts';
import type { ToldItem } from './told.ts';

const told =
  (kind: 'video' | 'post') =>
  (id: string, title: string, text: string, given: Partial<Item> = {}): ToldItem => ({
    item: anItem({ id, kind, title, url: `https://x.example/${id}`, language: 'en', ...given }),
    text
  });
const video = told('video');
const post = told('post');
const all = { refused: new Set<string>() };

test('titles tell which part of a series they are', () => {
  const cases: [string, number | null][] = [
    ['Slow project: silk scarf, part 3', 3],
    ['The long build (4/7)', 4],
    ['Webstuhl bauen, Teil IV', 4],
    ['Studio diary #12', 12],
    ['Episode 7: the reed', 7],
    ['2 of 5: the cross', 2],
    ['A walk-away split, part two', 2],
    ['Der Webstuhl, Teil drei', 3],
    ['The long build: second half', 2],
    ['Der erste Teil: die Kette', 1],
    ['No one weaves like this', null],
    ['My second loom', null],
    ['The first party of the year', null],
    ['Forty rugs in 2021', null],
    ['A particular 8/2 cotton', null],
    ['Party of 12', null]
  ];
  for (const [title, number] of cases) assert.equal(partOf(title)?.number ?? null, number, title);
});

test('the best whole: nobody twice, and nobody could do better together', () => {
  const edges = fc
    .uniqueArray(fc.tuple(fc.nat(4), fc.nat(4)), { selector: (e) => e.join(), maxLength: 12 })
    .chain((pairs) =>
      fc
        .array(fc.integer({ min: -5, max: 20 }), {
          minLength: pairs.length,
          maxLength: pairs.length
        })
        .map((worths) => pairs.map(([left, right], i) => ({ left, right, worth: worths[i]! })))
    );
  fc.assert(
    fc.property(edges, (given) => {
      const made = assign(given, 0.001).map((at) => given[at]!);
      assert.equal(new Set(made.map((e) => e.left)).size, made.length);
      assert.equal(new Set(made.map((e) => e.right)).size, made.length);
      const best = (from: number, taken: ReadonlySet<string>): number => {
        if (from === given.length) return 0;
        const { left, right, worth } = given[from]!;
        const without = best(from + 1, taken);
        if (taken.has(`l${left}`) || taken.has(`r${right}`)) return without;
        return Math.max(
          without,
          worth + best(from + 1, new Set([...taken, `l${left}`, `r${right}`]))
        );
      };
      const sum = made.reduce((total, e) => total + e.worth, 0);
      assert.ok(sum >= best(0, new Set()) - 0.01);
    })
  );
});

const SCARF =
  'The scarf took 25 metres of warp. We wound it with Juna at Hollin Bridge, and the fringe is twisted by hand.';
const TOWEL =
  'Three linen towels from one warp of 4 metres. The sett is nine, and Perrin hemmed them in Saltmarsh.';

test('what tells the same is found, and why is said', () => {
  const [pair, ...others] = proposePairs(
    [video('v', 'Winding for twelve scarves', SCARF), video('w', 'Three towels', TOWEL)],
    [post('p', 'A November warp', `${SCARF} More next week.`)],
    all
  );
  assert.deepEqual([pair?.video, pair?.post, others.length], ['v', 'p', 0]);
  const reasons = pair!.reasons.filter((reason) => speaksFor(reason));
  const names = reasons.flatMap((r) => (r.kind === 'names' ? r.words : []));
  assert.deepEqual(names, ['Juna', 'Hollin', 'Bridge']);
  assert.ok(reasons.some((r) => r.kind === 'figures' && r.words.includes('25')));
});

test('words that both say, and few others, are told, each once', () => {
  const [pair] = proposePairs(
    [
      video(
        'v',
        'Weighing a warp',
        `${SCARF} I hang each spool on a luggage scale, in wet weather.`
      ),
      video('w', 'Three towels', TOWEL)
    ],
    [
      post(
        'p',
        'A warp of 25 metres',
        'Each spool went on the luggage scale, and Juna wrote it down.'
      ),
      post('q', 'Away until spring', 'No posts while there is snow on each roof.')
    ],
    all
  );
  const words = pair!.reasons.flatMap((r) => (r.kind === 'words' ? r.words : []));
  assert.ok(words.includes('luggage') && words.includes('scale'), words.join());
  // Juna is told as a name, and 25 as a number.
  assert.ok(!words.includes('juna') && !words.includes('25'), words.join());
});

test('what both titles have is not told again as a name, nor a form of address', () => {
  const [pair] = proposePairs(
    [video('v', 'Mending a scarf', `${SCARF} Mending is slow, says Mr Aldous.`)],
    [post('p', 'Mending a scarf: notes', `${SCARF} We like Mending, as Mr Aldous does.`)],
    all
  );
  const names = pair!.reasons.flatMap((r) => (r.kind === 'names' ? r.words : []));
  assert.deepEqual(names, ['Juna', 'Hollin', 'Bridge', 'Aldous']);
});

test('texts without spaces between their words are compared', () => {
  const ja = { language: 'ja' };
  const scarf = '今日は細い羊毛の糸で襟巻きを織ります。経糸は二十五メートル、房は手で撚りました。';
  const towel = '麻の手拭いを三枚、一つの経糸から織ります。縁は手縫いで仕上げ、洗って干します。';
  const found = proposePairs(
    [video('v', '羊毛の襟巻き', scarf, ja), video('w', '麻の手拭い', towel, ja)],
    [
      post(
        'p',
        '三枚の手拭い',
        '一つの経糸から麻の手拭いを三枚織り、縁を手縫いで仕上げました。',
        ja
      ),
      post(
        'q',
        '冬の襟巻き',
        '細い羊毛の糸で襟巻きを織りました。房は手で撚り、経糸は二十五メートルです。',
        ja
      )
    ],
    all
  );
  assert.deepEqual(found.map((pair) => `${pair.video}${pair.post}`).sort(), ['vq', 'wp']);
  for (const { reasons } of found) {
    const kinds = reasons.map(({ kind }) => kind);
    assert.ok(kinds.includes('title-words') && kinds.includes('texts'), kinds.join());
  }
  const titles = found.flatMap(({ reasons }) =>
    reasons.flatMap((reason) => (reason.kind === 'title-words' ? reason.words : []))
  );
  assert.deepEqual(titles.sort(), ['の手拭い', 'の襟巻き']);
});

test('part three is never the twin of part four, whatever else they have in common', () => {
  const parts = [1, 2, 3, 4];
  const found = proposePairs(
    parts.map((n) => video(`v${n}`, `The slow blanket, part ${n}`, SCARF)),
    parts.filter((n) => n !== 4).map((n) => post(`p${n}`, `The slow blanket, part ${n}`, SCARF)),
    all
  );
  for (const { video: v, post: p, relation } of found)
    if (relation === 'twin') assert.equal(v.slice(1), p.slice(1));
  assert.equal(found.filter((p) => p.relation === 'twin').length, 3);
});

test('what the user refused is not proposed again', () => {
  const [videos, posts] = [[video('v', 'Scarves', SCARF)], [post('p', 'Scarves', SCARF)]];
  assert.equal(proposePairs(videos, posts, all).length, 1);
  assert.deepEqual(proposePairs(videos, posts, { refused: new Set(['v p']) }), []);
});

test('nothing is proposed of nothing, and odd items do no harm', () => {
  assert.deepEqual(proposePairs([], [], all), []);
  const odd = fc.record({
    title: fc.string({ unit: 'binary', maxLength: 40 }),
    text: fc.string({ unit: 'binary', maxLength: 200 }),
    published: fc.constantFrom(null, '', 'yesterday', '2020-02-30', '2024-05-06T07:08:09Z'),
    language: fc.constantFrom('', 'en', 'de', 'xx-invalid', 'EN-gb')
  });
  fc.assert(
    fc.property(fc.array(odd, { maxLength: 6 }), fc.array(odd, { maxLength: 6 }), (a, b) => {
      const videos = a.map(({ title, text, ...g }, i) => video(`v${i}`, title, text, g));
      const posts = b.map(({ title, text, ...g }, i) => post(`p${i}`, title, text, g));
      for (const { chance, video: v, post: p } of proposePairs(videos, posts, all)) {
        assert.ok(chance >= 0 && chance <= 1);
        assert.ok(videos.some((x) => x.item.id === v) && posts.some((x) => x.item.id === p));
      }
    }),
    { numRuns: 60 }
  );
});

test('numbers are one however they are written, and names are told by their capitals', () => {
  const { videos, terms } = corpusOf(
    [video('v', 'Warp', 'About 1,200 ends. Then Juna counted 4.50 metres. Nobody saw it.')],
    []
  );
  const shown = (ids: readonly number[]) => [...ids].map((id) => terms.words[id]);
  assert.deepEqual(shown(videos[0]!.figures), ['=1200', '=4.50']);
  assert.deepEqual(shown(videos[0]!.names), ['@warp', '@juna']);
});

// The bars themselves are in the bench; this is what must never get worse.
test('on crafts it was never shown, sure pairs are right and few are missed', () => {
  // One mixture has fewer than 200 twins: a few of them more or less would be chance.
  const { precision, recall, withDoubtful } = meanOf(heldOutMixtures());
  assert.ok(precision >= 0.99, `precision ${precision}`);
  assert.ok(recall >= 0.93, `recall ${recall}`);
  assert.ok(withDoubtful >= 0.98, `with the doubtful ${withDoubtful}`);
});

test('where half of all twins were torn apart, few are put together with another', () => {
  const { precision, recall } = meanOf(heldOutThinned().slice(0, 11));
  assert.ok(precision >= 0.97, `precision ${precision}`);
  assert.ok(recall >= 0.95, `recall ${recall}`);
});

function meanOf(catalogues: readonly Catalogue[]) {
  const all = catalogues.map((catalogue) => judge(catalogue));
  const mean = (of: 'precision' | 'recall' | 'withDoubtful') =>
    all.reduce((sum, one) => sum + one[of], 0) / all.length;
  return {
    precision: mean('precision'),
    recall: mean('recall'),
    withDoubtful: mean('withDoubtful')
  };
}
