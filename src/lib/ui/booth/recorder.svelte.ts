/** Records the microphone. */
export class Recorder {
  isOn = $state(false);
  seconds = $state(0);
  #recorder: MediaRecorder | null = null;
  #pieces: Blob[] = [];
  #timer: ReturnType<typeof setInterval> | undefined;

  /** @returns what stands in the way, or nothing */
  async start(): Promise<string> {
    if (typeof MediaRecorder === 'undefined') return 'This browser cannot record.';
    let stream: MediaStream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ audio: true });
    } catch {
      return 'There is no microphone, or the browser may not use it. Allow it in the address bar, or bring a file.';
    }
    this.#pieces = [];
    this.#recorder = new MediaRecorder(stream);
    this.#recorder.ondataavailable = ({ data }) => this.#pieces.push(data);
    this.#recorder.start();
    this.isOn = true;
    this.seconds = 0;
    this.#timer = setInterval(() => (this.seconds += 1), 1000);
    return '';
  }

  async stop(): Promise<Blob | null> {
    const recorder = this.#recorder;
    clearInterval(this.#timer);
    this.isOn = false;
    if (!recorder) return null;
    const ended = new Promise<void>((done) => (recorder.onstop = () => done()));
    recorder.stop();
    for (const track of recorder.stream.getTracks()) track.stop();
    await ended;
    this.#recorder = null;
    return new Blob(this.#pieces, { type: recorder.mimeType });
  }
}
