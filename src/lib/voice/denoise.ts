import { Rnnoise } from '@shiguredo/rnnoise-wasm';

/** The suppressor reckons with whole numbers of 16 bits. */
const SCALE = 32_768;

let loading: Promise<Rnnoise> | null = null;

/**
 * Takes hum, hiss and rooms out of speech (RNNoise: Valin 2018).
 * @param samples one channel of 48,000 a second, between -1 and 1
 * @returns as many samples; delayed by one hundredth of a second
 */
export async function denoise(samples: Float32Array): Promise<Float32Array> {
  loading ??= Rnnoise.load();
  const suppressor = await loading;
  const state = suppressor.createDenoiseState();
  try {
    const out = new Float32Array(samples.length);
    const frame = new Float32Array(suppressor.frameSize);
    for (let at = 0; at < samples.length; at += frame.length) {
      const piece = samples.subarray(at, at + frame.length);
      frame.fill(0);
      for (let i = 0; i < piece.length; i++) frame[i] = piece[i]! * SCALE;
      state.processFrame(frame);
      for (let i = 0; i < piece.length; i++) out[at + i] = frame[i]! / SCALE;
    }
    return out;
  } finally {
    state.destroy();
  }
}
