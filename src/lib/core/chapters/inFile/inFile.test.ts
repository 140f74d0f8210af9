import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { test } from 'node:test';
import {
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacket,
  Mp4OutputFormat,
  Output,
  WebMOutputFormat
} from 'mediabunny';
import type { Chapter } from '../chapter.ts';
import { matroskaChapters } from './matroska.ts';
import { mp4Chapters } from './mp4.ts';

const CHAPTERS: Chapter[] = [
  { start: 0, title: 'Before' },
  { start: 20.5, title: 'Kettfäden & 織り' },
  { start: 41, title: 'W'.repeat(300) }
];
const SECONDS = 60;

/** A minute of silence, as the muxer writes it. */
async function silence(format: WebMOutputFormat | Mp4OutputFormat, tags: object) {
  const output = new Output({ format, target: new BufferTarget() });
  const source = new EncodedAudioPacketSource('opus');
  output.addAudioTrack(source);
  output.setMetadataTags(tags);
  await output.start();
  for (let at = 0; at < SECONDS; at++)
    await source.add(new EncodedPacket(Uint8Array.of(0xf8, 0xff, 0xfe), 'key', at, 1), {
      decoderConfig: { codec: 'opus', numberOfChannels: 1, sampleRate: 48000 }
    });
  await output.finalize();
  return new Uint8Array(output.target.buffer!);
}

/** What ffprobe reads, with whatever it complains of. */
function probed(bytes: Uint8Array, ending: string) {
  const path = join(mkdtempSync(join(tmpdir(), 'chapters-')), `made.${ending}`);
  writeFileSync(path, bytes);
  const said = execFileSync(
    'ffprobe',
    [...'-v warning -show_chapters -show_format -show_packets -of json'.split(' '), path],
    { encoding: 'utf8', stdio: 'pipe' }
  );
  return JSON.parse(said) as {
    chapters: { start_time: string; end_time: string; tags: { title: string } }[];
    packets: unknown[];
    format: { duration: string; tags?: Record<string, string> };
  };
}

for (const tags of [{}, { title: 'A film', comment: 'Of silence' }]) {
  const told = 'title' in tags ? 'with tags' : 'without tags';
  test(`chapters stand in a WebM file ${told}`, async () => {
    const whole = await silence(new WebMOutputFormat(), tags);
    const patches = matroskaChapters(
      whole.subarray(0, 1000),
      whole.length,
      CHAPTERS,
      SECONDS,
      'eng'
    );
    assert.ok(patches);
    const patched = new Uint8Array(Math.max(...patches.map((p) => p.at + p.bytes.length)));
    patched.set(whole);
    for (const { at, bytes } of patches) patched.set(bytes, at);
    const { chapters, packets, format } = probed(patched, 'webm');
    assert.deepEqual(
      chapters.map((c) => [Number(c.start_time), c.tags.title]),
      CHAPTERS.map((c) => [c.start, c.title])
    );
    assert.equal(Number(chapters.at(-1)?.end_time), SECONDS);
    assert.equal(packets.length, SECONDS);
    assert.deepEqual(format.tags, probed(whole, 'webm').format.tags);
  });

  test(`chapters stand in an MP4 file ${told}`, async () => {
    let moov = { data: new Uint8Array(), at: 0 };
    const whole = await silence(
      new Mp4OutputFormat({
        fastStart: false,
        onMoov: (data, at) => (moov = { data: data.slice(), at })
      }),
      tags
    );
    assert.equal(moov.at + moov.data.length, whole.length);
    const changed = mp4Chapters(moov.data, CHAPTERS);
    const patched = new Uint8Array(moov.at + changed.length);
    patched.set(whole.subarray(0, moov.at));
    patched.set(changed, moov.at);
    const { chapters, packets, format } = probed(patched, 'mp4');
    assert.deepEqual(
      chapters.map((c) => [Number(c.start_time), c.tags.title]),
      CHAPTERS.map((c) => [c.start, c.title.slice(0, 255)])
    );
    assert.equal(packets.length, SECONDS);
    assert.deepEqual(format.tags, probed(whole, 'mp4').format.tags);
  });
}

test('a file that is laid out otherwise is left as it is', () => {
  assert.equal(matroskaChapters(new Uint8Array(100), 100, CHAPTERS, 60, 'eng'), null);
});
