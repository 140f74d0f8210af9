import { localZone } from '$lib/localZone.ts';
import { v4 } from 'uuid';
import { cyclesOf, overlapsOf, type Cycle } from '$lib/core/lanes/graph.ts';
import { newLane, type Lane } from '$lib/core/lanes/lane.ts';
import { readLaneFile, writeLaneFile } from '$lib/core/lanes/laneFile.ts';
import { addLane, allLanes, removeLane } from '$lib/data/lanes.ts';
import { allLayouts, saveLayout } from '$lib/data/layouts.ts';
import { note } from '$lib/data/journal.ts';
import { follow } from '$lib/data/live.ts';
import { placesOfKind } from '$lib/data/places.ts';

/** All lanes as they are being set. Each card saves its own, and follows what is changed elsewhere. */
export class Lanes {
  all = $state<Lane[]>([]);
  isRead = $state(false);
  readonly cycles: Cycle[] = $derived(cyclesOf(this.all));
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
    this.all = lanes.map((lane) => shown.get(lane.id) ?? structuredClone(lane));
    this.isRead = true;
  }

  async add(): Promise<Lane> {
    const timeZone = localZone();
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

  /** @returns the name under which it can be brought back */
  async remove(lane: Lane): Promise<string> {
    const trash = v4();
    await removeLane(lane.id, trash, new Date());
    await note({ what: 'lane-deleted', title: lane.name, trash });
    return trash;
  }

  /** Lanes that would make the same thing of the same items for the same place. */
  overlaps(lane: Lane): Lane[] {
    return overlapsOf(this.all, lane);
  }
}
