import captureUrl from './capture.worklet.ts?worker&url';
import { SAMPLE_RATE } from '$lib/core/audio/loudness.ts';

/** Seconds of what came before that stay when something is cut off: who is quick speaks before the key is up. */
const KEPT_BEFORE = 0.15;

/** Listens to the microphone without a gap; what was heard is cut off wherever it is wanted. */
export class Microphone {
  isOn = $state(false);
  /** Whether what is heard is thrown away for the moment. */
  isPaused = $state(false);
  /** Loudest sample of the last moment, between 0 and 1. */
  level = $state(0);
  /** Seconds since the last cut. */
  seconds = $state(0);

  #context: AudioContext | null = null;
  #stream: MediaStream | null = null;
  #blocks: Float32Array[] = [];

  /** @returns what stands in the way, or nothing */
  async start(): Promise<string> {
    if (this.isOn) return '';
    try {
      // Noise is taken out afterwards, by choice; what browsers do to calls makes a voice dull.
      const audio = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };
      this.#stream = await navigator.mediaDevices.getUserMedia({ audio });
      this.#context = new AudioContext({ sampleRate: SAMPLE_RATE });
      await this.#context.audioWorklet.addModule(captureUrl);
    } catch {
      this.stop();
      return 'There is no microphone, or the browser may not use it. Allow it in the address bar, or import a recording.';
    }
    const capture = new AudioWorkletNode(this.#context, 'capture', { numberOfOutputs: 0 });
    capture.port.onmessage = ({ data }: MessageEvent<Float32Array>) => this.#hear(data);
    this.#context.createMediaStreamSource(this.#stream).connect(capture);
    this.#blocks = [];
    this.seconds = 0;
    this.isPaused = false;
    this.isOn = true;
    return '';
  }

  #hear(block: Float32Array): void {
    this.level = block.reduce((top, s) => Math.max(top, Math.abs(s)), 0);
    if (this.isPaused) return;
    this.#blocks.push(block);
    this.seconds += block.length / SAMPLE_RATE;
  }

  /** Cuts off what was heard since the last cut: one channel of 48,000 samples a second. */
  cut(): Float32Array {
    const heard = this.#blocks;
    const kept = Math.round(KEPT_BEFORE * 20);
    this.#blocks = heard.slice(-kept);
    this.seconds = 0;
    const samples = new Float32Array(heard.reduce((sum, b) => sum + b.length, 0));
    let at = 0;
    for (const block of heard) {
      samples.set(block, at);
      at += block.length;
    }
    return samples;
  }

  stop(): void {
    for (const track of this.#stream?.getTracks() ?? []) track.stop();
    void this.#context?.close();
    this.#stream = null;
    this.#context = null;
    this.#blocks = [];
    this.isOn = false;
    this.level = 0;
  }
}
