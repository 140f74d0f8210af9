import { detectLanguage } from '$lib/core/text/language.ts';
import { normalizeForSpeech } from '$lib/core/narration/normalization/normalize.ts';
import type { ScriptOptions } from '$lib/core/narration/line.ts';
import { readHtml } from '$lib/core/markup/html.ts';
import { postBlocks } from '$lib/core/markup/postBlocks.ts';
import { directScenes } from '$lib/core/narration/direct/direct.ts';
import { piecesFor } from '$lib/core/narration/direct/pieces.ts';
import { momentAbout, type Moment } from '$lib/core/narration/pictures/inTalk.ts';
import { proposePictures, type Proposal } from '$lib/core/narration/pictures/propose.ts';
import type { Cue } from '$lib/core/captions/cue.ts';
import type { Piece, Scene, SceneKind } from '$lib/core/narration/scenes.ts';
import { writeScript, type Script } from '$lib/core/narration/script.ts';

export const narrationApi = {
  /** Started before it is needed. */
  ready: (): void => {},

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

  /** The pictures that fit a text best. */
  proposePictures: (
    text: string,
    context: string,
    candidates: readonly string[],
    language: string,
    count: number
  ): Proposal[] => proposePictures(text, context, candidates, language, count),

  /** The stretch of each talk that is most about a text. */
  momentsAbout: (
    text: string,
    talks: readonly (readonly Cue[])[],
    language: string
  ): (Moment | null)[] => talks.map((cues) => momentAbout(text, cues, language)),

  languageOf: (text: string): string => detectLanguage(text)
};

export type NarrationApi = typeof narrationApi;
