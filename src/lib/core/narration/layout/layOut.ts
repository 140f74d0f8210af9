import type { Measure } from '../fit.ts';
import type { Frame } from '../frames.ts';
import type { Scene, SceneKind } from '../scenes.ts';
import type { Style } from '../styles.ts';
import { chartStages } from './chart.ts';
import { comparisonStages, tableStages } from './columns.ts';
import { endStages } from './endCard.ts';
import { grounds, ownMark, settingOf } from './grounds.ts';
import { lowerThird, LOWER_THIRD } from './lowerThird.ts';
import type { SceneLayout, Stage } from './mark.ts';
import { beforeAfterStages, besideStages, pictureStages } from './pictures.ts';
import { mapStages, stepsStages } from './progress.ts';
import { smallHeight, type Setting } from './setting.ts';
import {
  figureStages,
  listStages,
  questionStages,
  quoteStages,
  sectionStages,
  statementStages,
  termStages,
  titleStages
} from './words.ts';

const STAGES: Readonly<Record<SceneKind, (scene: Scene, setting: Setting) => Stage[]>> = {
  title: titleStages,
  section: sectionStages,
  map: mapStages,
  statement: (scene, setting) =>
    scene.picture ? besideStages(scene, setting) : statementStages(scene, setting),
  list: listStages,
  steps: stepsStages,
  figure: figureStages,
  comparison: comparisonStages,
  table: tableStages,
  chart: chartStages,
  quote: quoteStages,
  question: questionStages,
  term: termStages,
  picture: pictureStages,
  beside: besideStages,
  'before-after': beforeAfterStages,
  end: endStages
};

/** Kinds that are mostly a picture, which is moved slowly where a style moves. */
const PICTURES: ReadonlySet<SceneKind> = new Set(['picture', 'beside', 'before-after']);

/**
 * Lays out one scene: what is painted, and at which moments of the speech it changes.
 * @param withLowerThird whether who speaks is shown on it
 */
export function layOutScene(
  scene: Scene,
  frame: Frame,
  style: Style,
  measure: Measure,
  withLowerThird = false
): SceneLayout {
  const setting = settingOf(scene.kind, frame, style, measure, style.wordLights);
  const third = withLowerThird ? lowerThird(setting) : [];
  const room = third.length > 0 ? smallHeight(setting) * LOWER_THIRD : 0;
  const above = { ...setting, box: { ...setting.box, height: setting.box.height - room } };
  const below = [...grounds(setting), ...ownMark(setting)];
  const stages = STAGES[scene.kind](scene, above).map((stage) => ({
    ...stage,
    marks: [...below, ...stage.marks, ...third]
  }));
  const isPicture = scene.picture !== null && PICTURES.has(scene.kind);
  return { stages, isMoving: isPicture && style.motion === 'moving' };
}
