import { expose } from 'comlink';
import { detectLanguage } from '$lib/core/language/language.ts';
import { heardText } from '$lib/core/narration/heard/heard.ts';
import type { ScriptOptions } from '$lib/core/narration/line.ts';
import { postBlocks } from '$lib/core/narration/postBlocks.ts';
import { proposeScenes, type Scene } from '$lib/core/narration/scenes.ts';
import { writeScript, type Script } from '$lib/core/narration/script.ts';

const api = {
  /** A post as a script and a storyboard. */
  narrate(
    post: { title: string; html: string; by: string; url: string },
    options: ScriptOptions
  ): { script: Script; scenes: Scene[] } {
    const script = writeScript({ title: post.title, blocks: postBlocks(post.html) }, options);
    return { script, scenes: proposeScenes(script, post) };
  },

  /** How a line is said, after its text was changed. */
  heard: (text: string, { language, pronunciations }: ScriptOptions): string =>
    heardText(text, language, pronunciations),

  languageOf: (text: string): string => detectLanguage(text)
};

export type NarrationWorker = typeof api;
expose(api);
