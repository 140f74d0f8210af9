import { v4 } from 'uuid';
import { cyclesOf, overlapsOf, type Cycle } from '$lib/core/lanes/graph.ts';
import { newLane, type Lane } from '$lib/core/lanes/lane.ts';
import { readLaneFile, writeLaneFile } from '$lib/core/lanes/laneFile.ts';
import { addLane, allLanes, patchLane, removeLane } from '$lib/data/lanes.ts';
import { allLayouts, saveLayout } from '$lib/data/layouts.ts';
import { follow } from '$lib/data/live.ts';
import { placesOfKind } from '$lib/data/places.ts';

const sameValue = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
const fieldsOf = (lane: Lane): (keyof Lane)[] => Object.keys(lane) as (keyof Lane)[];

/**
 * All lanes as they are being set. They follow the database: what a run, another tab or the rate
 * guard changes is shown at once, but for fields that are just being edited here.
 */
export class Lanes {
  all = $state<Lane[]>([]);
  isRead = $state(false);
  readonly cycles: Cycle[] = $derived(cyclesOf(this.all));
  /** As the database has them; what differs from it was edited here. */
  #kept = new Map<string, Lane>();

  /** @returns what ends it */
  follow(): () => void {
    return follow(
      allLanes,
      (lanes) => this.#take(lanes),
      (error) => console.error(error)
    );
  }

  #take(lanes: readonly Lane[]): void {
    const shown = new Map(this.all.map((lane) => [lane.id, lane]));
    this.all = lanes.map((lane) => {
      const [here, before] = [shown.get(lane.id), this.#kept.get(lane.id)];
      if (!here || !before) return structuredClone(lane);
      for (const field of fieldsOf(lane)) {
        const isEdited = !sameValue(here[field], before[field]);
        if (!isEdited && !sameValue(here[field], lane[field]))
          Object.assign(here, { [field]: structuredClone(lane[field]) });
      }
      return here;
    });
    this.#kept = new Map(lanes.map((lane) => [lane.id, lane]));
    this.isRead = true;
  }

  async add(): Promise<Lane> {
    const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
    const [channel] = await placesOfKind('channel');
    const [blog] = await placesOfKind('blog');
    const lane = newLane(v4(), `Lane ${this.all.length + 1}`, timeZone, Date.now());
    lane.source.places = channel ? [channel.id] : [];
    lane.targets = blog ? [{ placeId: blog.id, status: 'draft', categories: [], tags: [] }] : [];
    return this.#add(lane);
  }

  duplicate(lane: Lane): Promise<Lane> {
    const now = Date.now();
    return this.#add({
      ...($state.snapshot(lane) as Lane),
      id: v4(),
      name: `${lane.name}, copy`,
      isOn: false,
      since: null,
      stopped: null,
      created: now,
      changed: now
    });
  }

  /** Opens what was saved as a file; its places are chosen anew. @throws where it is no lane */
  async open(text: string): Promise<Lane> {
    const { lane, layouts } = readLaneFile(text, v4(), Date.now());
    // A layout that is kept already stays as it is.
    const known = new Set((await allLayouts()).map((l) => l.id));
    for (const layout of layouts) if (!known.has(layout.id)) await saveLayout(layout);
    return this.#add(lane);
  }

  /** A lane as the text of a file. */
  async fileOf(lane: Lane): Promise<string> {
    return writeLaneFile($state.snapshot(lane) as Lane, await allLayouts());
  }

  async #add(lane: Lane): Promise<Lane> {
    await addLane(lane);
    return lane;
  }

  /** Saves the fields that were edited here, and no others. */
  async save(lane: Lane): Promise<void> {
    const now = $state.snapshot(lane) as Lane;
    const before = this.#kept.get(lane.id);
    const patch: Partial<Lane> = {};
    for (const field of fieldsOf(now))
      if (!sameValue(now[field], before?.[field])) Object.assign(patch, { [field]: now[field] });
    await patchLane(lane.id, { ...patch, changed: Date.now() });
  }

  remove(lane: Lane): Promise<void> {
    return removeLane(lane.id);
  }

  /** Lanes that would make the same thing of the same items for the same place. */
  overlaps(lane: Lane): Lane[] {
    return overlapsOf(this.all, lane);
  }
}
