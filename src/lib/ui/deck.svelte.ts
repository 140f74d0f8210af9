/** What the deck plays or reads. One thing at a time. */

export interface Playing {
  title: string;
  contentUrl: string;
  embedUrl: string;
  /** Seconds to begin at; `turn` grows with each wish, so that the same second can be asked twice. */
  at: number;
  turn: number;
}

/** What can be done about a message, as long as it is shown. */
export interface Action {
  label: string;
  run: () => unknown;
}

export interface Reading {
  label: string;
  /** The sentence that is being read, and the characters of the word in it. */
  sentence: string;
  from: number;
  to: number;
}

let playing = $state<Playing | null>(null);
let reading = $state<Reading | null>(null);
let message = $state('');
let action = $state.raw<Action | null>(null);
let fading: ReturnType<typeof setTimeout> | undefined;
/** Milliseconds that a message stays. */
const SHOWN = 10_000;
let turn = 0;

const speech = (): SpeechSynthesis | null =>
  typeof speechSynthesis === 'undefined' ? null : speechSynthesis;

/** Browsers load their voices after the page; the first look may come too early. */
function hasVoice(synthesis: SpeechSynthesis): Promise<boolean> {
  if (synthesis.getVoices().length > 0) return Promise.resolve(true);
  return new Promise((resolve) => {
    const look = () => resolve(synthesis.getVoices().length > 0);
    synthesis.addEventListener('voiceschanged', look, { once: true });
    setTimeout(look, 800);
  });
}

export const deck = {
  get playing() {
    return playing;
  },
  get reading() {
    return reading;
  },
  get message() {
    return message;
  },

  /** Plays a video from a second on. */
  play(video: { title: string; contentUrl: string; embedUrl: string }, at = 0): void {
    deck.hush();
    const { title, contentUrl, embedUrl } = video;
    playing = { title, contentUrl, embedUrl, at, turn: ++turn };
  },

  close(): void {
    playing = null;
  },

  /** Reads a text aloud with the browser's own speech, where it has a voice. */
  async read(label: string, text: string, language: string): Promise<void> {
    const synthesis = speech();
    if (!synthesis || !(await hasVoice(synthesis))) {
      deck.say('This browser has no voice to read aloud with.');
      return;
    }
    deck.hush();
    const sentences = text.split(/\n+|(?<=[.!?…]["”’)]?)\s+/).filter((line) => line.trim());
    reading = { label, sentence: '', from: 0, to: 0 };
    sentences.forEach((sentence, i) => {
      const utterance = new SpeechSynthesisUtterance(sentence);
      if (language) utterance.lang = language;
      utterance.onstart = () => (reading = { label, sentence, from: 0, to: 0 });
      utterance.onboundary = ({ charIndex }) => {
        const word = /^\S+/.exec(sentence.slice(charIndex))?.[0] ?? '';
        reading = { label, sentence, from: charIndex, to: charIndex + word.length };
      };
      if (i === sentences.length - 1) utterance.onend = () => (reading = null);
      utterance.onerror = () => (reading = null);
      synthesis.speak(utterance);
    });
  },

  hush(): void {
    speech()?.cancel();
    reading = null;
  },

  get action() {
    return action;
  },

  /** Says a line at the right of the deck for ten seconds, and to screen readers. */
  say(line: string, offered: Action | null = null): void {
    message = line;
    action = offered;
    clearTimeout(fading);
    fading = setTimeout(() => {
      message = '';
      action = null;
    }, SHOWN);
  }
};
