import { z } from 'zod';
import { lineSchema, SILENT_PICTURE } from './line.ts';
import type { Script, ScriptPart } from './script.ts';

export const sceneKindSchema = z.enum([
  'title',
  'section',
  'sentence',
  'list',
  'quote',
  'picture',
  'end'
]);
export type SceneKind = z.infer<typeof sceneKindSchema>;

export const scenePictureSchema = z.object({
  url: z.string(),
  alt: z.string(),
  /** The whole picture within the frame, or the frame filled and slowly moved across. */
  shown: z.enum(['fitted', 'moved']).default('fitted')
});

/** One card of the video, with what is said while it is shown. */
export const sceneSchema = z.object({
  id: z.string(),
  kind: sceneKindSchema,
  lines: z.array(lineSchema),
  /** Whose words a quotation is, or what stands small beneath a title. */
  small: z.string().default(''),
  picture: scenePictureSchema.nullable().default(null),
  /** Seconds that it stays after the last word, beyond the usual pause; without words, in all. */
  hold: z.number().min(0).max(60).default(0),
  /** A recording of the user's own instead of the voice: the name of a kept sound, or empty. */
  recording: z.string().default('')
});
export type Scene = z.infer<typeof sceneSchema>;

/** Seconds that the end card stays. */
const END_HOLD = 2;
/** Short sentences that follow each other share a card up to so many characters. */
const SHARED = 90;

const KIND_OF: Record<ScriptPart['kind'], SceneKind> = {
  title: 'title',
  section: 'section',
  text: 'sentence',
  list: 'list',
  quote: 'quote',
  picture: 'picture',
  aside: 'sentence',
  end: 'end'
};

/**
 * A storyboard for a script: a card for each heading, list, quotation and picture; sentences have
 * one each, short neighbours share one.
 */
export function proposeScenes(script: Script, post: { url: string; by: string }): Scene[] {
  return script.parts.flatMap((part) => {
    const base = sceneSchema.parse({ id: '', kind: KIND_OF[part.kind], lines: [] });
    if (part.kind === 'text' || part.kind === 'aside') {
      return grouped(part).map((lines) => ({ ...base, id: lines[0]?.id ?? '', lines }));
    }
    const id = part.lines[0]?.id ?? `${part.block}.0`;
    if (part.kind === 'title') return [{ ...base, id: 'title', lines: part.lines, small: post.by }];
    if (part.kind === 'end')
      return [
        {
          ...base,
          id: 'end',
          lines: part.lines.filter((l) => l.text),
          small: post.url,
          hold: END_HOLD
        }
      ];
    if (part.kind === 'quote') return [{ ...base, id, lines: part.lines, small: part.by ?? '' }];
    if (part.kind === 'picture' && part.picture)
      return [
        {
          ...base,
          id: `picture-${part.block}`,
          lines: part.lines,
          hold: part.lines.length > 0 ? 0.5 : SILENT_PICTURE,
          picture: scenePictureSchema.parse(part.picture)
        }
      ];
    return [{ ...base, id, lines: part.lines }];
  });
}

function grouped(part: ScriptPart): ScriptPart['lines'][] {
  const groups: ScriptPart['lines'][] = [];
  let length = 0;
  for (const line of part.lines) {
    const last = groups.at(-1);
    if (last && length + line.text.length < SHARED) {
      last.push(line);
      length += line.text.length + 1;
    } else {
      groups.push([line]);
      length = line.text.length;
    }
  }
  return groups;
}

/**
 * Puts a scene into its neighbour before it: their lines on one card.
 * @returns the same list where there is no neighbour
 */
export function joinScene(scenes: readonly Scene[], index: number): Scene[] {
  const [before, scene] = [scenes[index - 1], scenes[index]];
  if (!before || !scene) return [...scenes];
  const joined = {
    ...before,
    lines: [...before.lines, ...scene.lines],
    picture: before.picture ?? scene.picture
  };
  return scenes.toSpliced(index - 1, 2, joined);
}

/** Makes a scene of its own from each line. */
export function splitScene(scenes: readonly Scene[], index: number): Scene[] {
  const scene = scenes[index];
  if (!scene || scene.lines.length < 2) return [...scenes];
  const kind = scene.kind === 'list' ? 'sentence' : scene.kind;
  const parts = scene.lines.map(
    (line, i) =>
      ({
        ...scene,
        kind: i === 0 ? kind : kind === 'picture' ? 'sentence' : kind,
        id: line.id,
        lines: [line],
        picture: i === 0 ? scene.picture : null
      }) as Scene
  );
  return scenes.toSpliced(index, 1, ...parts);
}

export function moveScene(scenes: readonly Scene[], from: number, to: number): Scene[] {
  const scene = scenes[from];
  if (!scene || to < 0 || to >= scenes.length) return [...scenes];
  return scenes.toSpliced(from, 1).toSpliced(to, 0, scene);
}
