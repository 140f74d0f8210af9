import { v4 } from 'uuid';
import { cyclesOf, overlapsOf, type Cycle } from '$lib/core/lanes/graph.ts';
import { newLane, type Lane } from '$lib/core/lanes/lane.ts';
import { readLaneFile, writeLaneFile } from '$lib/core/lanes/laneFile.ts';
import { db } from '$lib/data/db.ts';
import { removeLane, saveLane } from '$lib/data/lanes.ts';
import { allLayouts, saveLayout } from '$lib/data/layouts.ts';

/** All lanes as they are being set. */
export class Lanes {
  all = $state<Lane[]>([]);
  isRead = $state(false);
  readonly cycles: Cycle[] = $derived(cyclesOf(this.all));

  async read(): Promise<void> {
    this.all = (await db.lanes.toArray()).sort((a, b) => a.created - b.created);
    this.isRead = true;
  }

  async add(): Promise<Lane> {
    const { timeZone } = new Intl.DateTimeFormat().resolvedOptions();
    const channels = await db.places.where({ kind: 'channel' }).primaryKeys();
    const blogs = await db.places.where({ kind: 'blog' }).primaryKeys();
    const lane = newLane(v4(), `Lane ${this.all.length + 1}`, timeZone, Date.now());
    lane.source.places = channels.slice(0, 1);
    lane.targets = blogs
      .slice(0, 1)
      .map((placeId) => ({ placeId, status: 'draft', categories: [], tags: [] }));
    return this.#put(lane);
  }

  duplicate(lane: Lane): Promise<Lane> {
    const now = Date.now();
    const name = `${lane.name}, copy`;
    const copy = { ...($state.snapshot(lane) as Lane), id: v4(), name, isOn: false, since: null };
    return this.#put({ ...copy, created: now, changed: now });
  }

  /** Opens what was saved as a file; its places are chosen anew. @throws where it is no lane */
  async open(text: string): Promise<Lane> {
    const { lane, layouts } = readLaneFile(text, v4(), Date.now());
    // A layout that is kept already stays as it is.
    const known = new Set((await allLayouts()).map((l) => l.id));
    for (const layout of layouts) if (!known.has(layout.id)) await saveLayout(layout);
    return this.#put(lane);
  }

  /** A lane as the text of a file. */
  async fileOf(lane: Lane): Promise<string> {
    return writeLaneFile($state.snapshot(lane) as Lane, await allLayouts());
  }

  async #put(lane: Lane): Promise<Lane> {
    await saveLane(lane);
    this.all.push(lane);
    return lane;
  }

  async save(lane: Lane): Promise<void> {
    lane.changed = Date.now();
    await saveLane($state.snapshot(lane) as Lane);
  }

  async remove(lane: Lane): Promise<void> {
    await removeLane(lane.id);
    this.all = this.all.filter((l) => l.id !== lane.id);
  }

  /** Lanes that would make the same thing of the same items for the same place. */
  overlaps(lane: Lane): Lane[] {
    return overlapsOf(this.all, lane);
  }
}
