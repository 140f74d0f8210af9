import { z } from 'zod';
import { lineSchema } from './line.ts';

export const sceneKindSchema = z.enum([
  'title',
  /** A heading by itself, or on a map of all parts. */
  'section',
  'map',
  'statement',
  'list',
  'steps',
  'figure',
  'comparison',
  'table',
  /** Figures in one unit as bars. */
  'chart',
  'quote',
  'question',
  'term',
  /** A picture by itself, beside words, or beside another. */
  'picture',
  'beside',
  'before-after',
  'end'
]);
export type SceneKind = z.infer<typeof sceneKindSchema>;

export const scenePictureSchema = z.object({
  url: z.string(),
  alt: z.string(),
  /** The whole picture within the frame, or the frame filled and slowly moved across. */
  shown: z.enum(['fitted', 'moved']).default('fitted'),
  /** Who made it, where that has to be said. */
  credit: z.string().default('')
});
export type ScenePicture = z.infer<typeof scenePictureSchema>;

/** Words on the screen: what part they play in their kind of scene, and when they appear. */
export const pieceSchema = z.object({
  role: z.enum([
    'main',
    'value',
    'unit',
    'meaning',
    'label',
    'point',
    'question',
    'answer',
    'term',
    'cell',
    'part'
  ]),
  text: z.string(),
  /** Which of the scene's lines says it, and after how much of that line, between 0 and 1. */
  line: z.number().int().min(0),
  share: z.number().min(0).max(1).default(0)
});
export type Piece = z.infer<typeof pieceSchema>;

/** One card of the video, with what is said while it is shown. */
export const sceneSchema = z.object({
  id: z.string(),
  kind: sceneKindSchema,
  lines: z.array(lineSchema),
  /** What is shown of them; where it is empty, the lines themselves are. */
  pieces: z.array(pieceSchema).default([]),
  /** Which of how many: of a map, the part that begins. */
  at: z.number().int().min(0).default(0),
  /** Columns of a table, whose cells are its pieces row by row, the first row its heads. */
  columns: z.number().int().min(0).default(0),
  /** Whose words a quotation is, or what stands small beneath a title. */
  small: z.string().default(''),
  picture: scenePictureSchema.nullable().default(null),
  /** What it became, of a picture before and after. */
  second: scenePictureSchema.nullable().default(null),
  /** Seconds that it stays after the last word, beyond the usual pause; without words, in all. */
  hold: z.number().min(0).max(60).default(0),
  /** A recording of the user's own instead of the voice: the name of a kept sound, or empty. */
  recording: z.string().default('')
});
export type Scene = z.infer<typeof sceneSchema>;

/** Whether a part of the video begins with it. */
export const isHeading = ({ kind }: Pick<Scene, 'kind'>): boolean =>
  kind === 'section' || kind === 'map';

/** Addresses of all pictures of some scenes, each once. */
export const picturesIn = (scenes: readonly Scene[]): string[] => [
  ...new Set(scenes.flatMap((s) => [s.picture, s.second].flatMap((p) => (p ? [p.url] : []))))
];

/**
 * Puts a scene into its neighbour before it: their lines on one card, as statements where it tells
 * something of one kind alone.
 * @returns the same list where there is no neighbour
 */
export function joinScene(scenes: readonly Scene[], index: number): Scene[] {
  const [before, scene] = [scenes[index - 1], scenes[index]];
  if (!before || !scene) return [...scenes];
  const moved = scene.pieces.map((p) => ({ ...p, line: p.line + before.lines.length }));
  const isShaped = ONE_OF_A_KIND.has(before.kind) || ONE_OF_A_KIND.has(scene.kind);
  const isGist = before.pieces.length > 0 && scene.pieces.length > 0;
  const joined: Scene = {
    ...before,
    kind: isShaped ? 'statement' : before.kind,
    lines: [...before.lines, ...scene.lines],
    pieces: isGist ? asMain([...before.pieces, ...moved], isShaped) : [],
    picture: before.picture ?? scene.picture
  };
  return scenes.toSpliced(index - 1, 2, joined);
}

/** Kinds whose pieces play parts that only they have. */
const ONE_OF_A_KIND: ReadonlySet<SceneKind> = new Set([
  'figure',
  'comparison',
  'table',
  'chart',
  'question',
  'term',
  'map'
]);

const asMain = (pieces: readonly Piece[], isShaped: boolean): Piece[] =>
  isShaped ? pieces.map((p) => ({ ...p, role: 'main' })) : [...pieces];

/** Makes a scene of its own from each line. */
export function splitScene(scenes: readonly Scene[], index: number): Scene[] {
  const scene = scenes[index];
  if (!scene || scene.lines.length < 2) return [...scenes];
  const kind = PLAIN.has(scene.kind) ? scene.kind : 'statement';
  const isPicture = scene.picture !== null;
  const parts = scene.lines.map((line, i): Scene => {
    const own = scene.pieces.filter((p) => p.line === i).map((p) => ({ ...p, line: 0 }));
    return {
      ...scene,
      kind: isPicture ? (i === 0 ? scene.kind : 'statement') : kind,
      id: line.id,
      lines: [line],
      pieces: asMain(own, kind !== scene.kind),
      picture: i === 0 ? scene.picture : null,
      second: i === 0 ? scene.second : null
    };
  });
  return scenes.toSpliced(index, 1, ...parts);
}
const PLAIN: ReadonlySet<SceneKind> = new Set(['title', 'section', 'quote', 'end']);

export function moveScene(scenes: readonly Scene[], from: number, to: number): Scene[] {
  const scene = scenes[from];
  if (!scene || to < 0 || to >= scenes.length) return [...scenes];
  return scenes.toSpliced(from, 1).toSpliced(to, 0, scene);
}
