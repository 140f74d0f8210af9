/** Hands what the microphone gives to the page, a twentieth of a second at a time. */
declare const sampleRate: number;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}
declare function registerProcessor(name: string, processor: unknown): void;

class Capture extends AudioWorkletProcessor {
  #block = new Float32Array(Math.round(sampleRate / 20));
  #at = 0;

  process([input]: Float32Array[][]): boolean {
    for (const sample of input?.[0] ?? []) {
      this.#block[this.#at++] = sample;
      if (this.#at < this.#block.length) continue;
      this.port.postMessage(this.#block);
      this.#at = 0;
    }
    return true;
  }
}
registerProcessor('capture', Capture);
