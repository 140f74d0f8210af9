import assert from 'node:assert/strict';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import fc from 'fast-check';
import { Limiter } from './limiter.ts';
import { gainFor, limited, mixed, type Mix, type AudioClip } from './mix.ts';
import { decibels, LoudnessMeter, ratioOf, SAMPLE_RATE } from './loudness.ts';
import { PieceResampler, Resampler } from './resample.ts';
import { fromInt16, softenEnds, spokenRange, toInt16 } from './speech.ts';
import { interleave, readWav, wavHead } from './wav.ts';

const sine = (hertz: number, seconds: number, level: number, rate = SAMPLE_RATE): Float32Array =>
  Float32Array.from(
    { length: Math.round(seconds * rate) },
    (_, i) => level * Math.sin((2 * Math.PI * hertz * i) / rate)
  );
const integrated = (channels: Float32Array[]): number => {
  const meter = new LoudnessMeter(channels.length);
  meter.push(channels);
  return meter.integrated();
};
const joined = (...pieces: Float32Array[]): Float32Array => {
  const out = new Float32Array(pieces.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
};
/** What Debian's ffmpeg measures: integrated loudness and true peak. */
function measuredOutside(channels: Float32Array[]): { lufs: number; peak: number } {
  const folder = mkdtempSync(join(tmpdir(), 'loudness-'));
  try {
    const path = join(folder, 'a.wav');
    const body = interleave(channels);
    writeFileSync(
      path,
      Buffer.concat([
        wavHead(channels[0]?.length ?? 0, channels.length, SAMPLE_RATE),
        Buffer.from(body.buffer)
      ])
    );
    const { stderr } = spawnSync(
      'ffmpeg',
      ['-hide_banner', '-i', path, '-af', 'ebur128=peak=true', '-f', 'null', '-'],
      { encoding: 'utf8' }
    );
    const summary = stderr.slice(stderr.lastIndexOf('Summary'));
    return {
      lufs: Number(/I:\s+(-?[\d.]+) LUFS/.exec(summary)?.[1]),
      peak: Number(/Peak:\s+(-?[\d.]+) dBFS/.exec(summary)?.[1])
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

test('a sine of 997 Hz at full scale in one channel is -3.01 LUFS', () => {
  assert.ok(Math.abs(integrated([sine(997, 5, 1)]) + 3.01) < 0.02);
});

test('silence has no loudness, and silence around a tone does not count', () => {
  assert.equal(integrated([new Float32Array(SAMPLE_RATE * 2)]), -Infinity);
  const tone = sine(1000, 10, 0.1);
  const silence = new Float32Array(SAMPLE_RATE * 10);
  const alone = integrated([tone, tone]);
  assert.ok(Math.abs(integrated([joined(silence, tone), joined(silence, tone)]) - alone) < 0.1);
});

test('however it is fed, a sound is measured the same, and as ffmpeg measures it', () => {
  const swell = Float32Array.from(
    { length: SAMPLE_RATE * 8 },
    (_, i) =>
      Math.sin(i / 31) * Math.sin(i / 7) * 0.6 * (0.2 + 0.8 * Math.abs(Math.sin(i / 40_000)))
  );
  const whole = integrated([swell]);
  const meter = new LoudnessMeter(1);
  for (let i = 0; i < swell.length; i += 1777) meter.push([swell.subarray(i, i + 1777)]);
  assert.ok(Math.abs(meter.integrated() - whole) < 1e-9);
  assert.ok(Math.abs(measuredOutside([swell]).lufs - whole) < 0.15);
});

test('the limiter keeps a true peak that lies between samples under its ceiling, and its length', () => {
  // A quarter of the rate, off phase: samples of 0.71 hide peaks of 1.
  const hidden = Float32Array.from(
    { length: SAMPLE_RATE },
    (_, i) => Math.sin((Math.PI / 2) * i + Math.PI / 4) * (i > 20_000 && i < 22_000 ? 1 : 0.2)
  );
  const limiter = new Limiter(1, ratioOf(-1));
  const pieces: Float32Array[] = [];
  for (let i = 0; i < hidden.length; i += 999)
    pieces.push(limiter.push([hidden.subarray(i, i + 999)], 1.5)[0]!.slice());
  pieces.push(limiter.flush()[0] ?? new Float32Array());
  const limited = joined(...pieces);
  assert.equal(limited.length, hidden.length);
  assert.ok(measuredOutside([limited]).peak <= -0.9);
  // Where nothing is too loud, nothing is changed but the gain.
  for (let i = 0; i < 15_000; i++)
    assert.ok(Math.abs((limited[i] ?? 0) - (hidden[i] ?? 0) * 1.5) < 1e-6);
});

test('whatever comes in, no sample leaves the limiter above its ceiling', () => {
  fc.assert(
    fc.property(
      fc.array(fc.float({ min: -1, max: 1, noNaN: true }), { minLength: 1, maxLength: 3000 }),
      fc.double({ min: 0.1, max: 20, noNaN: true }),
      (values, gain) => {
        const limiter = new Limiter(1, 0.5);
        const first = limiter.push([Float32Array.from(values)], gain)[0]!.slice();
        const out = joined(first, limiter.flush()[0]!);
        assert.equal(out.length, values.length);
        for (const sample of out) assert.ok(Math.abs(sample) <= 0.5 + 1e-6);
      }
    ),
    { numRuns: 40 }
  );
});

const resampler = new PieceResampler();
test('resampled tones keep their pitch, level and length, and nothing folds back', () => {
  for (const [from, to] of [
    [16_000, 48_000],
    [22_050, 48_000],
    [44_100, 48_000],
    [96_000, 48_000]
  ] as const) {
    const out = resampler.resample(sine(1000, 1, 0.5, from), from, to);
    assert.equal(out.length, to);
    const wanted = sine(1000, 1, 0.5, to);
    let worst = 0;
    for (let i = 2000; i < to - 2000; i++)
      worst = Math.max(worst, Math.abs((out[i] ?? 0) - (wanted[i] ?? 0)));
    assert.ok(worst < 0.002, `${from} to ${to}: off by ${worst}`);
  }
  const folded = resampler
    .resample(sine(30_000, 1, 1, 96_000), 96_000, 48_000)
    .subarray(2000, 40_000);
  assert.ok(Math.max(...folded.map(Math.abs)) < 0.001);
});

test('piece by piece is the same as at once', () => {
  const tone = sine(440, 0.5, 0.8, 22_050);
  const whole = new Resampler(22_050, 48_000).push(tone);
  const bits = new Resampler(22_050, 48_000);
  const pieces: Float32Array[] = [];
  for (let i = 0; i < tone.length; i += 377) pieces.push(bits.push(tone.subarray(i, i + 377)));
  assert.deepEqual(joined(...pieces), whole);
});

test('silence around speech is found, and ends are softened', () => {
  const rate = 16_000;
  const sound = joined(new Float32Array(4000), sine(200, 1, 0.4, rate), new Float32Array(8000));
  const { from, to } = spokenRange(sound, rate);
  assert.ok(Math.abs(from - 4000 + 0.02 * rate) <= 80 && Math.abs(to - 20_000 - 0.02 * rate) <= 80);
  const soft = softenEnds(
    sine(200, 0.1, 1, rate).map(() => 1),
    rate
  );
  assert.ok((soft[0] ?? 1) < 0.01 && (soft.at(-1) ?? 1) < 0.01 && soft[800] === 1);
});

test('a WAV file that is written reads the same', () => {
  const tone = sine(300, 0.1, 0.9, 16_000);
  const bytes = Buffer.concat([
    wavHead(tone.length, 1, 16_000),
    Buffer.from(interleave([tone]).buffer)
  ]);
  const read = readWav(bytes);
  assert.equal(read.rate, 16_000);
  assert.ok(read.samples.every((s, i) => Math.abs(s - (tone[i] ?? 0)) < 1e-4));
  assert.ok(Math.abs(decibels(Math.max(...fromInt16(toInt16(tone)))) - decibels(0.9)) < 0.1);
  assert.throws(() => readWav(new Uint8Array(10)), RangeError);
});

const tone = (at: number, seconds: number, level: number): AudioClip => {
  const samples = sine(300, seconds, level);
  return {
    at: Math.round(at * SAMPLE_RATE),
    length: samples.length,
    read: async (from, count) => [samples.subarray(from, from + count)]
  };
};
async function whole(mix: Mix): Promise<Float32Array[]> {
  const blocks: Float32Array[][] = [];
  for await (const block of mixed(mix)) blocks.push(block.map((c) => c.slice()));
  return Array.from({ length: mix.channels }, (_, c) => joined(...blocks.map((b) => b[c]!)));
}

test('pieces sound where they stand, across the seconds in which they are mixed', async () => {
  const mix: Mix = {
    length: 5.5 * SAMPLE_RATE,
    channels: 1,
    pieces: [tone(0.9, 2.3, 0.5), tone(4, 1, 0.25)],
    bed: null
  };
  const [out] = await whole(mix);
  assert.equal(out?.length, mix.length);
  const level = (from: number, to: number) =>
    Math.max(...out!.subarray(from * SAMPLE_RATE, to * SAMPLE_RATE).map(Math.abs));
  assert.ok(level(0, 0.89) === 0 && level(3.3, 3.9) === 0 && level(5.1, 5.5) === 0);
  assert.ok(Math.abs(level(1, 3) - 0.5) < 0.01 && Math.abs(level(4.1, 4.9) - 0.25) < 0.01);
});

test('music is lowered under speech and loops', async () => {
  const music = sine(100, 0.7, 0.5);
  const mix: Mix = {
    length: 12 * SAMPLE_RATE,
    channels: 2,
    pieces: [{ ...tone(5, 2, 0), length: 2 * SAMPLE_RATE }],
    bed: {
      length: music.length,
      read: async (from, count) => [music.subarray(from, from + count)],
      level: 0,
      underSpeech: -20
    }
  };
  const [left] = await whole(mix);
  const level = (from: number, to: number) =>
    Math.max(...left!.subarray(from * SAMPLE_RATE, to * SAMPLE_RATE).map(Math.abs));
  assert.ok(Math.abs(level(2, 4) - 0.5) < 0.01 && Math.abs(level(5.2, 6.8) - 0.05) < 0.005);
  assert.ok(Math.abs(level(8, 10) - 0.5) < 0.01);
});

test('whatever comes in comes out at -16 LUFS, its true peaks under -1 dBTP', async () => {
  for (const level of [0.01, 0.1, 0.9]) {
    // Bursts with gaps, like speech, and one peak far above the rest.
    const mix: Mix = {
      length: 20 * SAMPLE_RATE,
      channels: 1,
      pieces: [
        ...Array.from({ length: 9 }, (_, i) => tone(i * 2, 1.6, level * (i % 2 ? 1 : 0.5))),
        tone(18.5, 0.05, level * 4)
      ],
      bed: null
    };
    const gain = await gainFor(() => mixed(mix), 1, integrated(await whole(mix)));
    const pieces: Float32Array[] = [];
    for await (const block of limited(mixed(mix), 1, gain)) pieces.push(block[0]!.slice());
    const out = joined(...pieces);
    assert.equal(out.length, mix.length);
    const { lufs, peak } = measuredOutside([out]);
    assert.ok(Math.abs(lufs + 16) < 0.5 && peak <= -1.4, `${lufs} LUFS, ${peak} dBTP`);
  }
  assert.equal(
    await gainFor(
      () => mixed({ length: 96_000, channels: 1, pieces: [], bed: null }),
      1,
      -Infinity
    ),
    1
  );
});
