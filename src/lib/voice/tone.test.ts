import assert from 'node:assert/strict';
import { test } from 'node:test';
import { equalise, inRoom, type Band } from '$lib/core/audio/equaliser.ts';
import { inTone } from './tone.ts';

const RATE = 22_050;
const sine = (hertz: number) =>
  Float32Array.from({ length: RATE }, (_, i) => 0.2 * Math.sin((2 * Math.PI * hertz * i) / RATE));
const levelOf = (samples: ArrayLike<number>, scale = 1) =>
  10 *
  Math.log10(
    Array.from(samples).reduce((sum, s) => sum + (s / scale) ** 2, 0) / (samples.length || 1)
  );
/** Decibels by which a tone becomes louder. */
function gainAt(hertz: number, bands: readonly Band[]): number {
  const samples = sine(hertz);
  const before = levelOf(samples.subarray(RATE / 2));
  equalise(samples, RATE, bands);
  return levelOf(samples.subarray(RATE / 2)) - before;
}

test('filters change what is around their frequency, and leave the rest', () => {
  for (const decibels of [6, -6]) {
    const near = (a: number, b: number) => Math.abs(a - b) < 0.5;
    assert.ok(near(gainAt(1000, [{ shape: 'peak', at: 1000, decibels }]), decibels));
    assert.ok(near(gainAt(60, [{ shape: 'peak', at: 1000, decibels }]), 0));
    assert.ok(near(gainAt(40, [{ shape: 'low-shelf', at: 400, decibels }]), decibels));
    assert.ok(near(gainAt(6000, [{ shape: 'low-shelf', at: 400, decibels }]), 0));
    assert.ok(near(gainAt(9000, [{ shape: 'high-shelf', at: 2000, decibels }]), decibels));
    assert.ok(near(gainAt(100, [{ shape: 'high-shelf', at: 2000, decibels }]), 0));
  }
});

test('a room answers after the sound, softly', () => {
  const click = new Float32Array(200);
  click[0] = 1;
  const heard = inRoom(click, RATE);
  assert.equal(heard[0], 1);
  assert.ok(heard.length - click.length === Math.ceil(0.0463 * RATE));
  assert.ok(heard.subarray(1).every((s) => Math.abs(s) < 0.15));
  assert.ok(heard.subarray(200).some((s) => Math.abs(s) > 0.01));
});

test('a sentence keeps its loudness and its words in every tone', () => {
  const samples = Int16Array.from({ length: RATE }, (_, i) =>
    Math.round(4000 * Math.sin(i / 9) + 2000 * Math.sin(i / 2))
  );
  const speech = { samples, rate: RATE, words: [0, 0.4] };
  assert.equal(inTone(speech, 'espeak', 'en', 'plain'), speech);
  for (const tone of ['balanced', 'room'] as const) {
    const heard = inTone(speech, 'espeak', 'en', tone);
    assert.deepEqual(heard.words, [0, 0.4]);
    assert.ok(Math.abs(levelOf(heard.samples, 32768) - levelOf(samples, 32768)) < 1);
    assert.ok(heard.samples.every((s) => Math.abs(s) < 32_767));
  }
});
