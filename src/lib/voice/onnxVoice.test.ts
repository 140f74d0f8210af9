import assert from 'node:assert/strict';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { after, test } from 'node:test';
import {
  batches,
  languageOfVoice,
  phonemeIds,
  readVoiceFile
} from '$lib/core/narration/voiceFile.ts';
import { SAMPLES, tinyModel, tinySettings } from '../../../tests/tinyVoice.ts';
import { espeakEngine } from './espeak.ts';
import { loadOnnxVoice, useRuntime } from './onnxVoice.ts';

const resolve = createRequire(import.meta.url).resolve;
const bytesOf = (name: string): ArrayBuffer => {
  const data = readFileSync(resolve(name));
  return data.buffer.slice(data.byteOffset, data.byteOffset + data.byteLength) as ArrayBuffer;
};
useRuntime(bytesOf('onnxruntime-web/ort-wasm-simd-threaded.wasm'));
const espeak = await espeakEngine(bytesOf('@echogarden/espeak-ng-emscripten/espeak-ng.data'));
const { file } = readVoiceFile(JSON.stringify(tinySettings));
assert.ok(file);
const voice = await loadOnnxVoice(tinyModel(), file, espeak);
after(() => voice.close());

test('eSpeak NG tells phonemes clause by clause, with the marks between them', () => {
  assert.deepEqual(espeak.phonemes('The warp is wide, and strong. Is it? Yes!', 'en-us'), [
    'ðə wˈɔːɹp ɪz wˈaɪd,',
    'ænd stɹˈɔŋ.',
    'ɪz ˈɪt?',
    'jˈɛs!'
  ]);
});

test('a voice reads a pad after each phoneme, and passes over what it does not know', () => {
  const map = { _: [0], '^': [1], $: [2], a: [3], ˈ: [4], b: [5, 6] };
  assert.deepEqual(
    phonemeIds('ˈab☃', { ...file, phoneme_id_map: map }),
    [1, 0, 4, 0, 3, 0, 5, 6, 0, 2]
  );
});

test('a voice says every phoneme for as long as its speed has it', async () => {
  const text = 'The warp is wide.';
  const ids = phonemeIds(espeak.phonemes(text, 'en-us').join(' '), file).length;
  const [usual, quick] = [await voice.say(text, 1), await voice.say(text, 2)];
  // Silence around it is cut, of which there is none; the ends are softened.
  assert.ok(Math.abs(usual.samples.length - ids * SAMPLES) < 2 * SAMPLES);
  assert.ok(Math.abs(quick.samples.length * 2 - usual.samples.length) < 2 * SAMPLES);
  assert.equal(usual.rate, 22_050);
  assert.equal(usual.words.length, 4);
  assert.ok(usual.words.every((w, i) => w >= (usual.words[i - 1] ?? 0)));
  assert.ok(usual.words.at(-1)! < usual.samples.length / usual.rate);
});

test('long texts are said in several goes, with all of their phonemes', async () => {
  const sentence = 'Wind the warp, thread the heddles, and sley the reed. ';
  const clauses = espeak.phonemes(sentence.repeat(12), 'en-us');
  assert.ok(batches(clauses).length > 1);
  assert.equal(batches(clauses).join(' '), clauses.join(' '));
  const [once, often] = [await voice.say(sentence, 1), await voice.say(sentence.repeat(12), 1)];
  const ratio = often.samples.length / once.samples.length;
  assert.ok(ratio > 11 && ratio < 12.5, `${ratio}`);
});

test('settings that are none are told apart from those for other phonemes', () => {
  const read = (settings: unknown) =>
    readVoiceFile(typeof settings === 'string' ? settings : JSON.stringify(settings)).problem;
  assert.equal(read('{'), 'bad-settings');
  assert.equal(read({ audio: { sample_rate: 22_050 } }), 'bad-settings');
  assert.equal(read({ ...tinySettings, audio: { sample_rate: 1e9 } }), 'bad-settings');
  assert.equal(read({ ...tinySettings, phoneme_type: 'text' }), 'other-phonemes');
  assert.equal(read({ ...tinySettings, inference: undefined, language: undefined }), null);
  assert.equal(languageOfVoice(file), 'en-US');
});

test('a file that is no network is refused', async () => {
  await assert.rejects(loadOnnxVoice(Uint8Array.of(8, 1, 2, 3), file, espeak));
});
