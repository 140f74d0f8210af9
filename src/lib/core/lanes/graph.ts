import type { Lane } from './lane.ts';

/** A way round: each lane places where the next one reads, and the last where the first does. */
export type Cycle = { lane: string; from: string; to: string }[];

/**
 * The ways round among some lanes over their places. A lane of updates ends at its networks, which
 * nobody reads from.
 * @returns each way once, from its first lane in the given order
 */
export function cyclesOf(lanes: readonly Lane[]): Cycle[] {
  const edges = lanes.flatMap((lane) =>
    lane.source.places.flatMap((from) =>
      lane.targets.map((target) => ({ lane: lane.id, from, to: target.placeId }))
    )
  );
  const order = new Map(lanes.map((lane, i) => [lane.id, i]));
  const found: Cycle[] = [];
  const walk = (path: Cycle) => {
    const first = path[0]!;
    const last = path.at(-1)!;
    if (last.to === first.from) {
      found.push(path);
      return;
    }
    for (const edge of edges) {
      const isLater = (order.get(edge.lane) ?? 0) > (order.get(first.lane) ?? 0);
      const isNew = !path.some((e) => e.lane === edge.lane);
      if (edge.from === last.to && isLater && isNew) walk([...path, edge]);
    }
  };
  for (const edge of edges) walk([edge]);
  return found;
}

/** Lanes that would make the same thing of the same items for the same place. */
export function overlapsOf(lanes: readonly Lane[], lane: Lane): Lane[] {
  return lanes.filter(
    (other) =>
      other.id !== lane.id &&
      other.make.kind === lane.make.kind &&
      other.source.places.some((p) => lane.source.places.includes(p)) &&
      other.targets.some((t) => lane.targets.some((own) => own.placeId === t.placeId))
  );
}
