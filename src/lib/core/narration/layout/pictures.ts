import type { Box } from '../frames.ts';
import type { Scene, ScenePicture } from '../scenes.ts';
import { flowStages, shownOf } from './flow.ts';
import type { Mark, Stage } from './mark.ts';
import {
  divided,
  inset,
  isWide,
  shorterSide,
  smallHeight,
  smallLine,
  type Setting
} from './setting.ts';
import { statementStages } from './words.ts';

const pictureMark = ({ url, shown }: ScenePicture, box: Box): Mark => ({
  kind: 'picture',
  move: 'picture',
  url,
  box,
  shown: shown === 'moved' ? 'moved' : 'contain'
});

/** Who made a picture, small at the foot of a box. */
const creditMarks = (credit: string, box: Box, setting: Setting): Mark[] => {
  const height = smallHeight(setting);
  return smallLine(credit, { ...box, y: box.y + box.height - height, height }, setting, 'start');
};

/** A picture by itself: whole within the frame, or filling it. */
export function pictureStages(scene: Scene, setting: Setting): Stage[] {
  const { frame, style } = setting;
  const { picture } = scene;
  if (!picture) return statementStages(scene, setting);
  const whole = { x: 0, y: 0, width: frame.width, height: frame.height };
  const around = inset(whole, Math.round(shorterSide(setting) * 0.04));
  const foot = picture.credit ? smallHeight(setting) + 8 : 0;
  const marks: Mark[] =
    picture.shown === 'moved'
      ? [pictureMark(picture, whole)]
      : [
          { kind: 'rect', box: whole, colour: style.ground },
          pictureMark(picture, { ...around, height: around.height - foot })
        ];
  const credit = creditMarks(picture.credit, setting.box, { ...setting, ground: style.ground });
  return [{ line: 0, share: 0, marks: [...marks, ...credit] }];
}

/** A picture with a few words beside it, or beneath it where the card is narrow. */
export function besideStages(scene: Scene, setting: Setting): Stage[] {
  const { picture } = scene;
  if (!picture) return statementStages(scene, setting);
  const [forPicture, forWords] = pictureAndWords(setting);
  const credit = picture.credit
    ? smallLine(
        picture.credit,
        {
          ...forWords,
          y: forWords.y + forWords.height - smallHeight(setting),
          height: smallHeight(setting)
        },
        setting,
        'start'
      )
    : [];
  const room = {
    ...forWords,
    height: forWords.height - (credit.length > 0 ? smallHeight(setting) + 12 : 0)
  };
  const words = flowStages(
    shownOf(scene),
    scene,
    { ...setting, box: room, align: 'start', stand: 'middle' },
    {
      weight: 600,
      largest: 0.082
    }
  );
  const still = [pictureMark(picture, forPicture), ...credit];
  return words.map((stage) => ({ ...stage, marks: [...still, ...stage.marks] }));
}

/** A wide card is divided beside its text box, which a panel may have made narrower; others in their height. */
function pictureAndWords({ box, frame }: Setting): [Box, Box] {
  const isBeside = frame.width > frame.height;
  const gap = Math.round(Math.min(frame.width, frame.height) * 0.05);
  return isBeside ? divided(box, 'x', 0.56, gap) : divided(box, 'y', 0.56, gap);
}

/** A picture before and one after: the second comes halfway through what is said of them. */
export function beforeAfterStages(scene: Scene, setting: Setting): Stage[] {
  const { picture, second } = scene;
  if (!picture || !second) return besideStages(scene, setting);
  const { box } = setting;
  const gap = Math.round(shorterSide(setting) * 0.04);
  const texts = shownOf(scene);
  const [upper, lower] = divided(box, 'y', isWide(setting) ? 0.72 : 0.74, gap);
  const [left, right] = divided(upper, isWide(setting) ? 'x' : 'y', 0.5, gap);
  const words = flowStages(
    texts,
    scene,
    { ...setting, box: lower, stand: 'middle' },
    { weight: 600, largest: 0.06 }
  );
  const [first, after] = [pictureMark(picture, left), pictureMark(second, right)];
  const stages = words.map((stage) => ({ ...stage, marks: [first, ...stage.marks] }));
  const last = stages.at(-1);
  if (!last) return [{ line: 0, share: 0, marks: [first, after] }];
  const half = { line: Math.floor((scene.lines.length - 1) / 2), share: 0.5 };
  const at = stages.findIndex(
    (s) => s.line > half.line || (s.line === half.line && s.share > half.share)
  );
  const from = at < 0 ? stages.length : at;
  const before = stages[from - 1] ?? last;
  return [
    ...stages.slice(0, from),
    { ...half, marks: [first, after, ...before.marks.slice(1)] },
    ...stages.slice(from).map((s) => ({ ...s, marks: [first, after, ...s.marks.slice(1)] }))
  ];
}
