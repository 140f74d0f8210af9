import { z } from 'zod';
import { keptLayoutSchema, type KeptLayout } from '../article/template/keptLayout.ts';
import { laneSchema, type Lane } from './lane.ts';

const laneFileSchema = laneSchema
  .omit({ id: true, isOn: true, since: true, created: true, changed: true })
  .extend({ layouts: z.array(keptLayoutSchema).default([]) });

/** A file of before the filter and the approval had these names. */
const oldFileSchema = z.looseObject({
  sift: z.unknown(),
  gate: z.object({ opens: z.unknown() })
});

function withNamesOfToday(file: unknown): unknown {
  const old = oldFileSchema.safeParse(file).data;
  if (!old) return file;
  const { sift, gate, ...others } = old;
  return { ...others, filter: sift, approval: { mode: gate.opens } };
}

const layoutsOf = ({ make }: Lane): Set<string | null> =>
  new Set([make.layout, ...make.layoutRules.map((r) => r.layout)]);

/** A logo is a picture kept in this browser; its name means nothing elsewhere. */
const withoutMark = (make: Lane['make']): Lane['make'] =>
  make.look ? { ...make, look: { ...make.look, style: { ...make.look.style, mark: '' } } } : make;

/**
 * A lane as a file (JSON) that can be given away: without keys, and without the addresses and names of
 * the user's places and what they listed. The layouts that it takes go with it.
 */
export function writeLaneFile(lane: Lane, layouts: readonly KeptLayout[]): string {
  const used = layoutsOf(lane);
  const given = laneFileSchema.parse({
    ...lane,
    source: { ...lane.source, places: [], playlists: [], sheet: null },
    make: withoutMark(lane.make),
    targets: [],
    layouts: layouts.filter((l) => used.has(l.id))
  });
  return JSON.stringify(given, null, 2);
}

/**
 * Reads a lane from a file. It is off, its places are to be chosen, and what it makes waits for review.
 * @throws where the file holds no lane
 */
export function readLaneFile(
  text: string,
  id: string,
  now: number
): { lane: Lane; layouts: KeptLayout[] } {
  const { layouts, ...given } = laneFileSchema.parse(withNamesOfToday(JSON.parse(text)));
  const lane = laneSchema.parse({
    ...given,
    // A file from elsewhere may name places; they are nobody's here.
    source: { ...given.source, places: [], playlists: [], sheet: null },
    make: withoutMark(given.make),
    // Whoever wrote it is unknown: what it makes is looked at before it goes out.
    approval: { mode: 'after-review' },
    targets: [],
    id,
    isOn: false,
    since: null,
    created: now,
    changed: now
  });
  return { lane, layouts };
}
