import type { ShortSound } from '../audio/synth/shortSounds.ts';
import type { Scene, SceneKind } from './scenes.ts';
import type { TimeLine } from './timeLine.ts';

/** A short sound at its second. */
export interface SoundCue {
  at: number;
  sound: ShortSound;
}

/** What is heard as a scene comes; most statements come without a sound. */
const COMES: Readonly<Partial<Record<SceneKind, ShortSound>>> = {
  title: 'shimmer',
  section: 'chime',
  map: 'chime',
  figure: 'rise',
  question: 'pluck',
  term: 'tap',
  quote: 'breath',
  picture: 'swish',
  beside: 'swish',
  'before-after': 'swish',
  end: 'bell'
};
/** What is heard as another thing of the same scene appears. */
const NEXT: Readonly<Partial<Record<SceneKind, ShortSound>>> = {
  list: 'tick',
  steps: 'knock',
  comparison: 'drop',
  table: 'tick',
  chart: 'tick',
  question: 'bell',
  'before-after': 'fall'
};
/** Seconds between two sounds at the least: more are restless. */
const APART = 1.2;

/** Which short sounds go with a video, and when: as scenes come, and as lists and steps go on. */
export function soundCues(scenes: readonly Pick<Scene, 'kind'>[], timeLine: TimeLine): SoundCue[] {
  const cues: SoundCue[] = [];
  const add = (at: number, sound: ShortSound | undefined) => {
    if (sound && at - (cues.at(-1)?.at ?? -APART) >= APART) cues.push({ at, sound });
  };
  for (const [i, timed] of timeLine.scenes.entries()) {
    const kind = scenes[i]?.kind ?? timed.kind;
    for (const [n, at] of timed.stages.entries())
      add(
        at,
        n === 0
          ? (COMES[kind] ?? (NEXT[kind] && kind !== 'comparison' ? NEXT[kind] : undefined))
          : NEXT[kind]
      );
  }
  return cues;
}
