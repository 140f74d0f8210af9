import { detectLanguage } from '$lib/core/text/language.ts';
import { normalizeForSpeech } from '$lib/core/narration/normalization/normalize.ts';
import type { ScriptOptions } from '$lib/core/narration/line.ts';
import { readHtml } from '$lib/core/markup/html.ts';
import { postBlocks } from '$lib/core/markup/postBlocks.ts';
import { directScenes } from '$lib/core/narration/direct/direct.ts';
import { piecesFor } from '$lib/core/narration/direct/pieces.ts';
import type { Piece, Scene, SceneKind } from '$lib/core/narration/scenes.ts';
import { writeScript, type Script } from '$lib/core/narration/script.ts';

export const narrationApi = {
  /** A post as a script and a storyboard. */
  narrate(
    post: { title: string; html: string; by: string; url: string },
    options: ScriptOptions
  ): { script: Script; scenes: Scene[] } {
    const script = writeScript(
      { title: post.title, blocks: postBlocks(readHtml(post.html)) },
      options
    );
    const { language, words } = options;
    return { script, scenes: directScenes(script, { ...post, language, words }) };
  },

  /** What is shown of some lines in a kind of scene; none where they tell nothing of the kind. */
  pieces: (
    kind: SceneKind,
    texts: readonly string[],
    { language, words }: ScriptOptions
  ): Piece[] => (words === 'gist' ? piecesFor(kind, texts, language) : null) ?? [],

  /** How a line is said, after its text was changed. */
  spoken: (text: string, { language, pronunciations }: ScriptOptions): string =>
    normalizeForSpeech(text, language, pronunciations),

  languageOf: (text: string): string => detectLanguage(text)
};

export type NarrationApi = typeof narrationApi;
