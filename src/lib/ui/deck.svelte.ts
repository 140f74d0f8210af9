/** What the deck plays or reads. One thing at a time. */

export interface Playing {
  title: string;
  contentUrl: string;
  embedUrl: string;
  /** Seconds to begin at; `turn` grows with each wish, so that the same second can be asked twice. */
  at: number;
  turn: number;
}

export interface Reading {
  label: string;
  text: string;
}

let playing = $state<Playing | null>(null);
let reading = $state<Reading | null>(null);
let message = $state('');
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
    const paragraphs = text.split(/\n+/).filter((line) => line.trim());
    reading = { label, text };
    paragraphs.forEach((paragraph, i) => {
      const utterance = new SpeechSynthesisUtterance(paragraph);
      if (language) utterance.lang = language;
      if (i === paragraphs.length - 1) utterance.onend = () => (reading = null);
      utterance.onerror = () => (reading = null);
      synthesis.speak(utterance);
    });
  },

  hush(): void {
    speech()?.cancel();
    reading = null;
  },

  /** Says a line at the right of the deck, and to screen readers. */
  say(line: string): void {
    message = line;
  }
};
