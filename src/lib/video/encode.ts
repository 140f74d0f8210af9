import {
  BlobSource,
  Conversion,
  EncodedAudioPacketSource,
  EncodedPacket,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Input,
  MATROSKA,
  MkvOutputFormat,
  Mp4OutputFormat,
  Output,
  Quality,
  StreamTarget,
  type StreamTargetChunk,
  VideoSampleSource,
  WebMOutputFormat,
  canEncodeAudio,
  canEncodeVideo,
  type VideoCodec
} from 'mediabunny';
import type { Chapter } from '$lib/core/chapters/chapter.ts';
import type { Patch } from '$lib/core/chapters/inFile/bytes.ts';
import { matroskaChapters } from '$lib/core/chapters/inFile/matroska.ts';
import { mp4Chapters } from '$lib/core/chapters/inFile/mp4.ts';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';
import { threeLetterCode } from '$lib/core/text/codes.ts';
import type { Format } from '$lib/core/narration/look.ts';
import type { Style } from '$lib/core/narration/styles.ts';
import { framesOf, type Part } from './parts.ts';
import { readFile, writeWhole } from './files.ts';
import { openMedia } from './ownMedia.ts';
import type { FramePainter } from './framePainter.ts';

/** What is encoded how. Cards stand still for seconds, so the rate hardly matters and quality does. */
export interface Encoding {
  format: Format;
  video: VideoCodec;
  audio: 'opus' | 'aac';
  width: number;
  height: number;
}
const VIDEO_BITRATE = 4_000_000;
/** Each frame by itself as sharp as this; a rate would starve cards that are shown for seconds. */
const CARD_QUALITY = new Quality({ quantizer: 20, bitrate: 4 * VIDEO_BITRATE });
const AUDIO_BITRATE = 80_000;
/** Seconds between two frames that stand by themselves: a player can jump to each. */
const KEY_FRAMES = 10;

/**
 * The encodings that this browser can make of a size; WebM first.
 * @returns empty where it has no WebCodecs at all
 */
export async function possibleEncodings(size: {
  width: number;
  height: number;
}): Promise<Encoding[]> {
  if (typeof VideoEncoder === 'undefined' || typeof AudioEncoder === 'undefined') return [];
  const found: Encoding[] = [];
  const options = { ...size, bitrate: VIDEO_BITRATE };
  const audio = { numberOfChannels: 2, sampleRate: SAMPLE_RATE, bitrate: AUDIO_BITRATE };
  const opus = await canEncodeAudio('opus', audio);
  for (const video of ['vp9', 'vp8'] as const) {
    if (opus && (await canEncodeVideo(video, options))) {
      found.push({ format: 'webm', video, audio: 'opus', ...size });
      break;
    }
  }
  if (await canEncodeVideo('avc', options)) {
    const aac = await canEncodeAudio('aac', audio);
    if (aac || opus)
      found.push({ format: 'mp4', video: 'avc', audio: aac ? 'aac' : 'opus', ...size });
  }
  return found;
}

/** A target that streams into a file, which is closed by whoever opened it. */
const targetFor = (
  file: FileSystemWritableFileStream,
  saw: (chunk: StreamTargetChunk) => void = () => {}
): StreamTarget =>
  new StreamTarget(
    new WritableStream<StreamTargetChunk>({
      write: (chunk) => {
        saw(chunk);
        return file.write(chunk as FileSystemWriteChunkType);
      }
    }),
    { chunked: true, chunkSize: 2 ** 20 }
  );

/** Does all that goes into an output; nothing of it goes on once that has failed. */
async function fill(output: Output, work: () => Promise<void>): Promise<void> {
  try {
    await output.start();
    await work();
    await output.finalize();
  } catch (error) {
    await output.cancel().catch(() => {});
    throw error;
  }
}

/** Encodes a part into a file of its own. `goOn` throws when the work is to be stopped. */
export async function encodePart(
  name: string,
  part: Part,
  style: Style,
  encoding: Encoding,
  painter: FramePainter,
  goOn: (seconds: number) => void
): Promise<void> {
  const source = new VideoSampleSource({
    codec: encoding.video,
    quality: CARD_QUALITY,
    keyFrameInterval: KEY_FRAMES,
    latencyMode: 'realtime'
  });
  painter.begin();
  await writeWhole(name, (file) => {
    const output = new Output({ format: new MkvOutputFormat(), target: targetFor(file) });
    output.addVideoTrack(source);
    return fill(output, async () => {
      for (const { at, seconds, marks } of framesOf(part, style)) {
        goOn(at);
        using sample = await painter.paint(marks, at, seconds);
        await source.add(sample, { keyFrame: at === 0 });
      }
    });
  });
}

/** Brings a clip of the user's own to the size and codec of the video, its picture only. */
export async function encodeClip(
  name: string,
  clip: Blob,
  encoding: Encoding,
  goOn: (share: number) => void
): Promise<void> {
  using input = openMedia(clip);
  await writeWhole(name, async (file) => {
    const output = new Output({ format: new MkvOutputFormat(), target: targetFor(file) });
    const conversion = await Conversion.init({
      input,
      output,
      video: {
        width: encoding.width,
        height: encoding.height,
        fit: 'contain',
        codec: encoding.video,
        bitrate: VIDEO_BITRATE * 1.5,
        forceTranscode: true
      },
      audio: { discard: true }
    });
    let stopped: unknown = null;
    conversion.onProgress = (share) => {
      if (stopped) return;
      try {
        goOn(share);
      } catch (error) {
        stopped = error;
        void conversion.cancel().catch(() => {});
      }
    };
    try {
      await conversion.execute();
    } catch (error) {
      await output.cancel().catch(() => {});
      // Ended by hand, it fails with words of its own.
      throw stopped ?? error;
    }
    // Stopped at its very end, it says nothing.
    if (stopped) throw stopped;
  });
}

/** As WebCodecs names them. Opus at little effort: at this rate speech gains nothing by more, and it is three times as quick. */
const SOUND_CODECS: Record<'opus' | 'aac', { codec: string; opus?: { complexity: number } }> = {
  opus: { codec: 'opus', opus: { complexity: 3 } },
  aac: { codec: 'mp4a.40.2' }
};
/** Blocks of a second that wait for the encoder at most. */
const WAITING = 4;

/** Encodes finished sound into a file of its own. */
export async function encodeSound(
  name: string,
  sound: { channels: 1 | 2; blocks: AsyncIterable<Float32Array[]>; seconds: number },
  encoding: Encoding,
  goOn: (seconds: number) => void
): Promise<void> {
  const { channels, blocks, seconds } = sound;
  const source = new EncodedAudioPacketSource(encoding.audio);
  let failed: unknown = null;
  let written: Promise<unknown> = Promise.resolve();
  const encoder = new AudioEncoder({
    output: (chunk, meta) => {
      const packet = EncodedPacket.fromEncodedChunk(chunk);
      written = written.then(() => source.add(packet, meta));
      written.catch((error) => (failed ??= error));
    },
    error: (error) => {
      failed ??= error;
      // Nothing leaves the queue of an encoder that failed.
      encoder.dispatchEvent(new Event('dequeue'));
    }
  });
  const encodeBlocks = async () => {
    encoder.configure({
      ...SOUND_CODECS[encoding.audio],
      sampleRate: SAMPLE_RATE,
      numberOfChannels: channels,
      bitrate: AUDIO_BITRATE
    } as AudioEncoderConfig);
    let at = 0;
    // AudioData copies what it is given.
    let memory = new Float32Array(0);
    const last = Math.round(seconds * SAMPLE_RATE);
    for await (const block of blocks) {
      goOn(at / SAMPLE_RATE);
      if (failed) throw failed;
      const numberOfFrames = Math.min(block[0]?.length ?? 0, last - at);
      if (numberOfFrames <= 0) continue;
      if (memory.length < numberOfFrames * channels)
        memory = new Float32Array(numberOfFrames * channels);
      const data = memory.subarray(0, numberOfFrames * channels);
      for (let c = 0; c < channels; c++)
        data.set((block[c] ?? block[0])!.subarray(0, numberOfFrames), c * numberOfFrames);
      const piece = new AudioData({
        data,
        format: 'f32-planar',
        numberOfChannels: channels,
        numberOfFrames,
        sampleRate: SAMPLE_RATE,
        timestamp: Math.round((at / SAMPLE_RATE) * 1e6)
      });
      encoder.encode(piece);
      piece.close();
      at += numberOfFrames;
      while (encoder.encodeQueueSize > WAITING && !failed)
        await new Promise((done) => encoder.addEventListener('dequeue', done, { once: true }));
    }
    if (failed) throw failed;
    await encoder.flush();
    await written;
    if (failed) throw failed;
  };
  try {
    await writeWhole(name, (file) => {
      const output = new Output({ format: new MkvOutputFormat(), target: targetFor(file) });
      output.addAudioTrack(source);
      return fill(output, encodeBlocks);
    });
  } finally {
    if (encoder.state !== 'closed') encoder.close();
  }
}

export interface Muxing {
  name: string;
  encoding: Encoding;
  /** Files of the parts, and the second at which each begins. */
  parts: { name: string; start: number }[];
  /** File of the sound. */
  sound: string;
  tags: { title: string; comment: string; language: string };
  /** They are written into the file. */
  chapters: readonly Chapter[];
  /** Of the whole. */
  seconds: number;
  goOn: (seconds: number) => void;
}

async function openPart(name: string): Promise<Input> {
  const file = await readFile(name);
  if (!file) throw new Error(`A finished part is gone: ${name}`);
  return new Input({ source: new BlobSource(file), formats: [MATROSKA] });
}

/** What is seen in all parts, at its time in the whole. */
async function* picturePackets(parts: Muxing['parts']) {
  for (const { name, start } of parts) {
    using input = await openPart(name);
    const track = await input.getPrimaryVideoTrack();
    if (!track) continue;
    const meta = { decoderConfig: (await track.getDecoderConfig()) ?? undefined };
    for await (const packet of new EncodedPacketSink(track).packets())
      yield { packet: packet.clone({ timestamp: start + packet.timestamp }), meta };
  }
}

/** Puts parts and sound into one file, as a stream. Nothing is encoded again. */
export async function mux(muxing: Muxing): Promise<void> {
  const { name, encoding, parts, sound, tags, goOn } = muxing;
  /** What of the file is needed to put chapters into it: where it ends, its head, or its last box. */
  const seen: Seen = { length: 0, head: new Uint8Array(), moov: null };
  const format =
    encoding.format === 'webm'
      ? new WebMOutputFormat({ onSegmentHeader: (data, at) => (seen.head = fromStart(data, at)) })
      : new Mp4OutputFormat({
          fastStart: false,
          onMoov: (data, at) => (seen.moov = { at, bytes: data.slice() })
        });
  const video = new EncodedVideoPacketSource(encoding.video);
  const audio = new EncodedAudioPacketSource(encoding.audio);
  const copy = async () => {
    using soundInput = await openPart(sound);
    const track = await soundInput.getPrimaryAudioTrack();
    const soundMeta = { decoderConfig: (await track?.getDecoderConfig()) ?? undefined };
    const packets = track && new EncodedPacketSink(track).packets();
    let next = await packets?.next();
    // Both in the order of their times: what comes early would wait in memory for what comes late.
    const copySound = async (until: number) => {
      for (; packets && next?.value && next.value.timestamp <= until; next = await packets.next())
        await audio.add(next.value, soundMeta);
    };
    for await (const { packet, meta } of picturePackets(parts)) {
      goOn(packet.timestamp);
      await copySound(packet.timestamp);
      await video.add(packet, meta);
    }
    video.close();
    await copySound(Infinity);
    audio.close();
  };
  await writeWhole(name, async (file) => {
    const target = targetFor(file, ({ position, data }) => {
      seen.length = Math.max(seen.length, position + data.length);
    });
    const output = new Output({ format, target });
    output.addVideoTrack(video);
    output.addAudioTrack(audio, { languageCode: threeLetterCode(tags.language) });
    output.setMetadataTags({ title: tags.title, comment: tags.comment });
    await fill(output, copy);
    for (const { at, bytes } of chapterPatches(muxing, seen))
      await file.write({ type: 'write', position: at, data: bytes });
  });
}

interface Seen {
  length: number;
  head: Uint8Array;
  moov: Patch | null;
}

/** Bytes where they stand in their file; what comes before them is left empty. */
function fromStart(data: Uint8Array, at: number): Uint8Array {
  const bytes = new Uint8Array(at + data.length);
  bytes.set(data, at);
  return bytes;
}

/** No library at hand writes chapters: they are added to the finished file. */
function chapterPatches({ chapters, seconds, tags }: Muxing, seen: Seen): Patch[] {
  if (chapters.length === 0) return [];
  const { head, length, moov } = seen;
  if (!moov)
    return matroskaChapters(head, length, chapters, seconds, threeLetterCode(tags.language)) ?? [];
  const isLast = moov.at + moov.bytes.length === length;
  return isLast ? [{ at: moov.at, bytes: mp4Chapters(moov.bytes, chapters) }] : [];
}
