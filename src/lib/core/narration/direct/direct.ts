import { chartOf } from '../chart.ts';
import { spokenSeconds } from '../duration.ts';
import type { Line } from '../line.ts';
import { END_HOLD, SILENT_PICTURE } from '../line.ts';
import {
  sceneSchema,
  scenePictureSchema,
  type Piece,
  type Scene,
  type SceneKind
} from '../scenes.ts';
import type { Script } from '../script.ts';
import type { ScriptPart } from '../scriptPart.ts';
import { LONGEST_STILL, longestStill, piecesFor } from './pieces.ts';
import { placePictures } from './placePictures.ts';

/** What a storyboard is made with, beside its script. */
export interface Directing {
  /** BCP 47. */
  language: string;
  /** On the screen: a few words of each sentence, or the sentence itself. */
  words: 'gist' | 'sentence';
  /** Address of the post, and whose it is. */
  url: string;
  by: string;
}

/** Parts from which on a map of them is drawn. */
const MAPPED = 3;

/** Some lines as a scene of a kind, and how well it fits them. */
interface Option {
  kind: SceneKind;
  lines: readonly Line[];
  pieces: Piece[];
  worth: number;
}

/**
 * A storyboard for a script: for every sentence the kind of scene that shows best what it says, no more
 * than two of a kind one after the other where another fits. The best sequence is found at once, by
 * dynamic programming over sentences, the kind of the last scene and how often it came.
 */
export function directScenes(script: Script, directing: Directing): Scene[] {
  const { parts, pictureOf } = placePictures(script.parts, directing.language);
  const sections = parts.filter((p) => p.kind === 'section');
  const titles = sections.map((p) => p.lines.map((l) => l.text).join(' '));
  let ways: Way[] = [{ worth: 0, kind: 'title', run: 0, last: null }];
  let section = -1;
  for (const part of parts) {
    if (part.kind === 'section') section++;
    const isMapped = part.kind === 'section' && titles.length >= MAPPED;
    if (part.kind === 'text' || part.kind === 'aside')
      ways = throughText(ways, part, pictureOf, directing);
    else
      ways = bestOfEach(
        ways.map((way) => goOn(way, fixedScene(part, directing, isMapped ? titles : null, section)))
      );
  }
  const best = ways.reduce((a, b) => (b.worth > a.worth ? b : a));
  const scenes: Scene[] = [];
  for (let step = best.last; step; step = step.before) scenes.unshift(step.scene);
  return scenes;
}

/** A storyboard so far: what it is worth, its last kind and how often in a row. */
interface Way {
  worth: number;
  kind: SceneKind;
  run: number;
  last: { scene: Scene; before: Way['last'] } | null;
}

/** The same kind for the third time, and each time after. */
const AGAIN = 1.5;

function goOn(way: Way, scene: Scene, worth = 0): Way {
  const run = scene.kind === way.kind ? way.run + 1 : 1;
  return {
    worth: way.worth + worth - (run > 2 ? AGAIN * (run - 2) : 0),
    kind: scene.kind,
    run,
    last: { scene, before: way.last }
  };
}

/** Of the ways that go on alike, the best. */
function bestOfEach(ways: readonly Way[]): Way[] {
  const best = new Map<string, Way>();
  for (const way of ways) {
    const name = `${way.kind} ${Math.min(way.run, 4)}`;
    const known = best.get(name);
    if (!known || way.worth > known.worth) best.set(name, way);
  }
  return [...best.values()];
}

function throughText(
  ways: readonly Way[],
  part: ScriptPart,
  pictureOf: ReadonlyMap<string, ScriptPart[]>,
  directing: Directing
): Way[] {
  const { lines } = part;
  const at: Way[][] = Array.from({ length: lines.length + 1 }, () => []);
  at[0] = [...ways];
  for (let i = 0; i < lines.length; i++) {
    const here = bestOfEach(at[i]!);
    for (const option of optionsAt(lines, i, pictureOf, directing)) {
      const pictures = pictureOf.get(option.lines[0]!.id) ?? [];
      const scene = sceneOf(option, pictures);
      at[i + option.lines.length]!.push(...here.map((way) => goOn(way, scene, option.worth)));
    }
  }
  return bestOfEach(at[lines.length]!);
}

function sceneOf({ kind, lines, pieces }: Option, pictures: readonly ScriptPart[]): Scene {
  const [first, second] = pictures.map(({ picture }) => scenePictureSchema.parse(picture));
  return sceneSchema.parse({
    id: lines[0]?.id ?? '',
    kind,
    lines: [...lines],
    pieces,
    picture: first ?? null,
    second: second ?? null
  });
}

/** How well a kind fits what it can tell; a statement fits everything. */
const FITS: Readonly<Partial<Record<SceneKind, number>>> = {
  statement: 1,
  list: 0.92,
  figure: 1.5,
  term: 1.5,
  question: 1.4,
  comparison: 1.6
};
/** Seconds that a list or a pair of statements may take, and words of an item. */
const ITEM_WORDS = 11;
const LIST_SECONDS = 16;
const PAIR_SECONDS = 7;
/** Sentences that a scene may take. */
const SIZES = [1, 2, 3];
/** What each second costs that nothing new is seen for too long, beyond a statement's worth. */
const STILL_COST = 0.3;
/** A scene shorter than this is gone before it was seen. */
const FLASH = 2.2;

/** The scenes that may begin with a line. */
function optionsAt(
  lines: readonly Line[],
  at: number,
  pictureOf: ReadonlyMap<string, ScriptPart[]>,
  { language, words }: Directing
): Option[] {
  const line = lines[at]!;
  const pictured = pictureOf.get(line.id);
  const whole = words === 'sentence';
  const pieces = (kind: SceneKind, some: readonly Line[]) =>
    whole
      ? null
      : piecesFor(
          kind,
          some.map((l) => l.text),
          language
        );
  if (pictured)
    return [
      {
        kind: pictured.length > 1 ? 'before-after' : 'beside',
        lines: [line],
        pieces: pieces('beside', [line]) ?? [],
        worth: 0
      }
    ];
  const free = SIZES.map((n) => lines.slice(at, at + n)).filter(
    (some, i) => some.length === i + 1 && some.every((l) => !pictureOf.has(l.id))
  );
  const secondsOf = (some: readonly Line[]) =>
    some.reduce((sum, l) => sum + spokenSeconds(l.spoken || l.text, language), 0);
  const options: Option[] = [];
  const offer = (kind: SceneKind, some: readonly Line[], shown: Piece[] | null) => {
    if (!shown) return;
    const seconds = secondsOf(some);
    const flash = seconds < FLASH ? 0.6 : 0;
    const said = some.map((l) => ({ text: l.text, seconds: secondsOf([l]) }));
    const still = longestStill(shown, said) - LONGEST_STILL;
    const stands = still > 0 ? 1 + STILL_COST * still : 0;
    const worth = (FITS[kind] ?? 1) * some.length - flash - stands;
    options.push({ kind, lines: some, pieces: shown, worth });
  };
  const [one = [], two, three] = free;
  offer('statement', one, pieces('statement', one) ?? []);
  offer('figure', one, pieces('figure', one));
  offer('term', one, pieces('term', one));
  offer('comparison', one, pieces('comparison', one));
  // A sentence of several phrases may build like a list.
  offer('list', one, severalPhrases(pieces('statement', one)));
  if (two) {
    offer('question', two, pieces('question', two));
    offer('comparison', two, pieces('comparison', two));
    if (secondsOf(two) <= PAIR_SECONDS)
      offer('statement', two, whole ? [] : pieces('statement', two));
  }
  for (const some of [two, three])
    if (some && secondsOf(some) <= LIST_SECONDS && !some.some((l) => l.text.endsWith('?')))
      offer('list', some, whole ? [] : shortItems(pieces('list', some)));
  return options;
}

/** Sentences that are no list where they can be told by whole sentences alone. */
const shortItems = (pieces: Piece[] | null): Piece[] | null =>
  pieces?.every((p) => p.text.split(' ').length <= ITEM_WORDS) ? pieces : null;

const severalPhrases = (pieces: Piece[] | null): Piece[] | null =>
  pieces && pieces.length > 1 ? pieces : null;

/** Parts whose kind is told by the post itself. */
function fixedScene(
  part: ScriptPart,
  directing: Directing,
  titles: readonly string[] | null,
  section: number
): Scene {
  const { lines } = part;
  const id = lines[0]?.id ?? `${part.block}.0`;
  const scene = (kind: SceneKind, more: Partial<Scene> = {}) =>
    sceneSchema.parse({ id, kind, lines, ...more });
  const gist = (kind: SceneKind) =>
    directing.words === 'gist'
      ? (piecesFor(
          kind,
          lines.map((l) => l.text),
          directing.language
        ) ?? [])
      : [];
  switch (part.kind) {
    case 'title':
      return scene('title', { id: 'title', small: directing.by });
    case 'section':
      return titles
        ? scene('map', {
            at: section,
            pieces: titles.map((text): Piece => ({ role: 'part', text, line: 0, share: 0 }))
          })
        : scene('section');
    case 'list':
      return scene(part.isOrdered ? 'steps' : 'list', {
        pieces: gist(part.isOrdered ? 'steps' : 'list')
      });
    case 'table': {
      const columns = part.rows?.[0]?.length ?? 0;
      const pieces = (part.rows ?? []).flatMap((row, r) =>
        row.map((text): Piece => ({ role: 'cell', text, line: Math.max(0, r - 1), share: 0 }))
      );
      // What else a table tells would be lost in a chart.
      const isChart = columns === 2 && chartOf({ pieces, columns }) !== null;
      return scene(isChart ? 'chart' : 'table', { columns, pieces });
    }
    case 'quote':
      return scene('quote', { small: part.by ?? '' });
    case 'picture':
      return scene('picture', {
        id: `picture-${part.block}`,
        hold: lines.length > 0 ? 0.5 : SILENT_PICTURE,
        picture: part.picture ? scenePictureSchema.parse(part.picture) : null
      });
    default:
      return scene('end', {
        id: 'end',
        lines: lines.filter((l) => l.text),
        small: directing.url,
        hold: END_HOLD
      });
  }
}
