import assert from 'node:assert/strict';
import { execFile, type ExecFileException } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, test } from 'node:test';
import { runTwin, type Ended } from '../bin/commands.ts';
import { archived, fillStudio } from './archiveStudio.ts';

const LINES = [
  'Welcome to the studio. Today we wind a warp on a warping board.',
  'A warp is a set of threads of the same length. The board gives the warp its length.',
  'Now let’s make the cross. The cross keeps the threads in order.',
  'Wind the yarn over the first peg. Take it under the second peg. Tie the cross with cotton.',
  'Next, counting. Count the threads in bundles of twenty. A lost bundle is a narrow stripe.',
  'Write the number of bundles down. Thank you for watching.'
];
const stamp = (s: number) => `00:0${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`;
const VTT = `WEBVTT\n\n${LINES.map((l, i) => `${stamp(i * 8)}.000 --> ${stamp(i * 8 + 7)}.500\n${l}\n`).join('\n')}`;
const SRT = LINES.map(
  (l, i) => `${i + 1}\n${stamp(i * 8)},000 --> ${stamp(i * 8 + 7)},500\n${l}\n`
).join('\n');

const TWIN = new URL('../bin/twin', import.meta.url).pathname;

let folder = '';
before(async () => {
  folder = await mkdtemp(join(tmpdir(), 'twin-'));
  await writeFile(join(folder, 'a.vtt'), VTT);
  await writeFile(join(folder, 'a.srt'), SRT);
  await writeFile(join(folder, 'a.txt'), LINES.join('\n'));
  await writeFile(join(folder, 'bad.vtt'), 'not captions');
  await writeFile(join(folder, 'empty.vtt'), 'WEBVTT\n\n00:01.000 --> 00:02.000\n[music]\n');
  await writeFile(
    join(folder, 'post.md'),
    '---\ntitle: Warps\n---\n\nTie it in order to keep it.\n'
  );
  await writeFile(
    join(folder, 'flax.md'),
    '---\ntitle: Retting flax\n---\n\nFlax is laid in rows on the grass, and the dew does the work.\n\nFlax needs 12 hours in the sun before it is bundled.\n\n## Turning\n\n## Breaking\n\n## Hackling\n'
  );
});
after(() => rm(folder, { recursive: true, force: true }));

/** What a command does, in this process. */
const twin = (args: string[], input = ''): Promise<Ended> =>
  runTwin(args, () => Buffer.from(input));
const file = (name: string) => join(folder, name);

test('sentences from WebVTT, SRT and standard input are the same', async () => {
  const [vtt, srt, piped] = [
    await twin(['sentences', file('a.vtt')]),
    await twin(['sentences', file('a.srt')]),
    await twin(['sentences', '-', '--from', 'vtt'], VTT)
  ];
  const sentences = JSON.parse(vtt.out) as { start: number; end: number; text: string }[];
  assert.equal(sentences[0]?.text, 'Welcome to the studio.');
  assert.equal(sentences[0]?.start, 0);
  assert.equal(srt.out, vtt.out);
  assert.equal(piped.out, vtt.out);
});

test('chapters as JSON, as a list and as a track', async () => {
  const [json, list, track] = [
    await twin(['chapters', file('a.vtt'), '--count', '3']),
    await twin(['chapters', file('a.vtt'), '--format', 'description']),
    await twin(['chapters', file('a.vtt'), '--format', 'vtt'])
  ];
  const { chapters, curve } = JSON.parse(json.out);
  assert.equal(chapters.length, 3);
  assert.equal(chapters[0].start, 0);
  assert.equal(chapters[1].start, chapters[0].end);
  assert.equal(typeof curve[0].value, 'number');
  assert.match(list.out, /^0:00 \S.*\n\d:\d\d \S/);
  assert.match(track.out, /^WEBVTT\n\n00:00:00\.000 --> /);
});

test('segments of a text, and an article in every form', async () => {
  const [segment, json, md, html] = [
    await twin(['segment', file('a.txt'), '--count', '2']),
    await twin([
      'article',
      file('a.vtt'),
      '--title',
      'Warps',
      '--format',
      'json',
      '--length',
      'long'
    ]),
    await twin(['article', file('a.txt'), '--title', 'Warps']),
    await twin(['article', file('a.vtt'), '--title', 'A <b>', '--format', 'html'])
  ];
  assert.equal(JSON.parse(segment.out).starts.length, 2);
  const article = JSON.parse(json.out);
  const sentence = article.body.find((b: { kind: string }) => b.kind !== 'heading').sentences[0];
  assert.ok(sentence.end > sentence.start && sentence.text.length > 0);
  assert.equal(article.leftOut[0].reason, 'greeting');
  assert.match(md.out, /^---\ntitle: Warps\n/);
  assert.match(html.out, /^<h1>A &lt;b><\/h1>/);
});

test('findings have line and column', async () => {
  const { out } = await twin(['check', file('post.md'), '--phrase', 'warp']);
  const found = JSON.parse(out) as { kind: string; line: number; column: number }[];
  const wordy = found.find((f) => f.kind === 'wordy');
  assert.deepEqual([wordy?.line, wordy?.column], [5, 8]);
  assert.deepEqual(
    new Set(found.map((f) => f.kind)),
    new Set(['excerpt-empty', 'no-embed', 'no-links', 'phrase', 'wordy'])
  );
});

test('updates are made from a post, with the lines they come from', async () => {
  const made = async (kind: string) => {
    const link = ['--link', 'https://notebook.example/a'];
    const { out, err } = await twin([
      'update',
      file('flax.md'),
      '--kind',
      kind,
      '--limit',
      '200',
      ...link
    ]);
    assert.equal(err, '');
    return JSON.parse(out);
  };
  const [text, poll, quiz] = [await made('text'), await made('poll'), await made('quiz')];
  assert.match(text.text, /^Retting flax\n\nFlax .*\n\n.*https:\/\/notebook\.example\/a$/s);
  assert.ok(text.length <= 200 && text.from.every((line: number) => line === 5 || line === 7));
  assert.ok(poll.length > 0 && poll[0].options.length >= 2);
  assert.deepEqual(
    quiz[0].options.filter((o: { right: boolean }) => o.right).map((o: { text: string }) => o.text),
    ['12']
  );
  assert.equal(quiz[0].from, 7);
  assert.match(quiz[0].why, /12 hours.* \(line 7\)$/);
});

test('bad input: one line that says what and where, and status 2', async () => {
  const calls: [string[], RegExp][] = [
    [[], /which command/],
    [['weave', 'x'], /no command “weave”/],
    [['sentences'], /needs a file/],
    [['sentences', file('none.vtt')], /none\.vtt: there is no such file/],
    [['sentences', folder], /this is a folder/],
    [['sentences', file('bad.vtt')], /bad\.vtt, line 1: .*WEBVTT/],
    [['sentences', file('empty.vtt')], /empty\.vtt, line 1: There is no speech/],
    [['chapters', file('a.vtt'), '--count', '0'], /--count must be/],
    [['chapters', file('a.vtt'), '--format', 'xml'], /--format must be json, description, vtt/],
    [['chapters', file('a.vtt'), '--weave'], /weave/],
    [['article', file('a.vtt')], /needs --title/],
    [
      ['article', file('a.vtt'), '--title', 'A', '--length', '3%'],
      /--length must be from 5% to 100%/
    ],
    [
      ['article', file('a.vtt'), '--title', 'A', '--length', 'huge'],
      /--length must be short, medium/
    ],
    [['sentences', file('a.vtt'), 'b'], /one file at a time/],
    [['update', file('flax.md'), '--limit', '9'], /needs --kind/],
    [['update', file('flax.md'), '--kind', 'poll'], /needs --limit/],
    [
      ['update', file('flax.md'), '--kind', 'song', '--limit', '9'],
      /--kind must be text, poll, quiz/
    ],
    [['update', file('flax.md'), '--kind', 'quiz', '--limit', 'x'], /--limit must be/]
  ];
  for (const [args, message] of calls) {
    const { status, out, err } = await twin(args);
    assert.equal(status, 2, args.join(' '));
    assert.equal(out, '');
    assert.match(err, message);
    assert.match(err, /^twin: [^\n]+\n$/);
  }
});

test('the program itself: files, standard input, and what is bad', async () => {
  const program = (args: string[], input = ''): Promise<Ended> =>
    new Promise((done) => {
      const child = execFile(TWIN, args, (error: ExecFileException | null, out, err) =>
        done({ status: error ? (Number(error.code) as 2) : 0, out, err })
      );
      child.stdin?.end(input);
    });
  const [piped, bad] = await Promise.all([
    program(['sentences', '-', '--from', 'vtt'], VTT),
    program(['sentences', file('bad.vtt')])
  ]);
  assert.deepEqual(piped, { ...(await twin(['sentences', file('a.vtt')])), status: 0 });
  assert.deepEqual(bad, await twin(['sentences', file('bad.vtt')]));
});

test('an archive is listed, checked, and put into a folder', async () => {
  await fillStudio();
  const bytes = new Uint8Array(await (await archived()).arrayBuffer());
  await writeFile(file('whole.zip'), bytes);
  const { status, out, err } = await twin([
    'archive',
    file('whole.zip'),
    '--folder',
    file('unpacked')
  ]);
  assert.deepEqual([status, err], [0, '']);
  const told = JSON.parse(out) as { tables: Record<string, number>; findings: unknown[] };
  assert.deepEqual([told.tables.items, told.findings], [4, []]);
  const rows = await readFile(file('unpacked/tables/items.jsonl'), 'utf8');
  assert.equal(rows.trimEnd().split('\n').length, 4);
  assert.match(await readFile(file('unpacked/posts/2026-03-01-part-c-c.md'), 'utf8'), /## Warp/);
  // What is there is not written over.
  const again = await twin(['archive', file('whole.zip'), '--folder', file('unpacked')]);
  assert.match(again.err, /unpacked: the folder is not empty\n$/);

  const from = Buffer.from(bytes).indexOf('tables/bodies.jsonl') + 60;
  await writeFile(file('damaged.zip'), Buffer.from(bytes).fill(0, from, from + 20));
  const damaged = await twin(['archive', file('damaged.zip'), '--folder', file('sound')]);
  assert.deepEqual(
    [damaged.status, damaged.err],
    [2, `twin: ${file('damaged.zip')}: 1 file is not sound\n`]
  );
  assert.match(damaged.out, /"file": "tables\/bodies\.jsonl"/);
  await assert.rejects(() => readFile(file('sound/tables/bodies.jsonl')));
  assert.ok(await readFile(file('sound/tables/items.jsonl')));

  await writeFile(file('cut.zip'), bytes.subarray(0, 900));
  assert.match((await twin(['archive', file('cut.zip')])).err, /cut\.zip: its end is missing/);
  assert.match((await twin(['archive', file('a.txt')])).err, /a\.txt: this is no archive/);
  assert.match((await twin(['archive', file('none.zip')])).err, /there is no such file/);
  assert.match((await twin(['archive', folder])).err, /this is a folder/);
  assert.match((await twin(['archive'])).err, /archive needs a file\n/);
});
