import assert from 'node:assert/strict';
import { test } from 'node:test';
import { LoudnessMeter, SAMPLE_RATE } from '../loudness.ts';
import { mixed, type AudioClip } from '../mix.ts';
import { bedNameSchema, makeBed } from './beds.ts';
import { makeShortSound, shortSoundSchema } from './shortSounds.ts';
import { addTone, frequencyOf } from './tone.ts';

const loudest = (samples: Float32Array) =>
  samples.reduce((top, s) => Math.max(top, Math.abs(s)), 0);

/** Strength of one frequency in a sound (Goertzel's algorithm). */
function strengthAt(samples: Float32Array, hertz: number): number {
  const turn = 2 * Math.cos((2 * Math.PI * hertz) / SAMPLE_RATE);
  let [a, b] = [0, 0];
  for (const s of samples) [a, b] = [s + turn * a - b, a];
  return Math.sqrt(Math.max(0, a * a + b * b - turn * a * b)) / samples.length;
}

test('a tone has the frequency of its note', () => {
  const buffer = new Float32Array(SAMPLE_RATE);
  addTone(buffer, 0, frequencyOf(69), 0.5, { partials: [1], attack: 0.01, decay: 0.5 });
  const at = (hertz: number) => strengthAt(buffer, hertz);
  assert.ok(at(440) > 20 * at(415) && at(440) > 20 * at(466));
});

test('twelve short sounds, each of its own, under two seconds, from silence to silence', () => {
  const made = shortSoundSchema.options.map((name) => makeShortSound(name));
  assert.equal(made.length, 12);
  for (const [i, samples] of made.entries()) {
    const name = shortSoundSchema.options[i];
    assert.ok(samples.length < 2 * SAMPLE_RATE, name);
    assert.ok(Math.abs(loudest(samples) - 0.3) < 1e-3, `${name}: ${loudest(samples)}`);
    assert.ok(Math.abs(samples[0]!) < 0.01 && Math.abs(samples.at(-1)!) < 1e-3, name);
    // No step between two samples that would be heard as a click.
    for (let k = 1; k < samples.length; k++)
      assert.ok(Math.abs(samples[k]! - samples[k - 1]!) < 0.2, `${name} at ${k}`);
    assert.deepEqual(makeShortSound(shortSoundSchema.options[i]!), samples);
    for (const other of made.slice(i + 1)) assert.notDeepEqual(other, samples);
  }
});

test('three beds: wide, of one loudness, and without a seam when they are played again', () => {
  const loudness = bedNameSchema.options.map((name) => {
    const [left, right] = makeBed(name);
    assert.ok(left.length > 15 * SAMPLE_RATE && left.length < 45 * SAMPLE_RATE, name);
    assert.ok(Math.max(loudest(left), loudest(right)) <= 0.5 + 1e-6);
    assert.notDeepEqual(left, right);
    const steps = Array.from({ length: 4800 }, (_, i) => Math.abs(left[i + 1]! - left[i]!));
    const seam = Math.abs(left[0]! - left.at(-1)!);
    assert.ok(seam <= 2 * Math.max(...steps) + 0.01, `${name}: ${seam}`);
    const meter = new LoudnessMeter(2);
    meter.push([left, right]);
    return meter.integrated();
  });
  assert.ok(Math.max(...loudness) - Math.min(...loudness) < 8, loudness.join(' '));
});

test('music gives way to speech, and not to short sounds', async () => {
  const clip = (at: number, isSpeech: boolean): AudioClip => ({
    at: at * SAMPLE_RATE,
    length: 2 * SAMPLE_RATE,
    isSpeech,
    read: (_, count) => Promise.resolve([new Float32Array(count)])
  });
  const levels: number[] = [];
  const bed = {
    length: 20 * SAMPLE_RATE,
    read: (_: number, count: number) => Promise.resolve([new Float32Array(count).fill(1)]),
    level: 0,
    underSpeech: -20
  };
  for await (const [block] of mixed({
    length: 14 * SAMPLE_RATE,
    channels: 1,
    pieces: [clip(3, false), clip(8, true)],
    bed
  }))
    levels.push(block![SAMPLE_RATE / 2]!);
  assert.ok(levels[4]! > 0.99, `${levels[4]}`);
  assert.ok(Math.abs(levels[8]! - 0.1) < 0.01, `${levels[8]}`);
});
