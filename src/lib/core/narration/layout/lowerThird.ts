import type { Mark } from './mark.ts';
import { clipped, LINE_HEIGHT, rule, smallHeight, textMarks, type Setting } from './setting.ts';

/** Small lines that it takes, with its gap. */
export const LOWER_THIRD = 3;

/** Who speaks: a name and a line beneath it, at the foot of the text box. */
export function lowerThird(setting: Setting): Mark[] {
  const { box, style, ink, quiet, frame } = setting;
  const { name, line } = style.lowerThird;
  if (!name) return [];
  const height = smallHeight(setting);
  const size = { size: frame.smallestType, lineHeight: LINE_HEIGHT };
  const y = box.y + box.height - height * 2;
  const placing = { align: 'start', stand: 'top' } as const;
  const indent = 24;
  const inner = { ...box, x: box.x + indent, width: box.width - indent };
  return [
    { ...rule(box.x, y, 8, height * (line ? 2 : 1), setting), move: 'grow-y' },
    ...textMarks(
      [clipped(name, inner.width * 0.94, setting)],
      size,
      { ...inner, y, height },
      setting,
      {
        ...placing,
        weight: 700,
        colour: ink
      }
    ),
    ...(line
      ? textMarks(
          [clipped(line, inner.width, setting)],
          size,
          { ...inner, y: y + height, height },
          setting,
          {
            ...placing,
            weight: 500,
            colour: quiet
          }
        )
      : [])
  ];
}
