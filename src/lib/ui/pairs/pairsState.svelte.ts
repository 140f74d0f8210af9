import type { Relation } from '$lib/core/model/tie.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Problem } from '$lib/core/model/place.ts';
import type { Proposal } from '$lib/core/twins/likeness/propose.ts';
import { onChange } from '$lib/data/changes.ts';
import { itemsByIds } from '$lib/data/items.ts';
import { deck } from '$lib/ui/deck.svelte.ts';
import { plural } from '$lib/ui/messages.ts';
import { decidePairs, readCaptionsForPairing } from '$lib/work/pairs.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import { pairsWorker } from '$lib/workers/pairs.ts';

/** A proposal with the items that it is about. */
export interface ShownPair extends Proposal {
  id: string;
  videoItem: Item;
  postItem: Item;
}

/** Pairs that were found, what is chosen of them, and what is decided. */
export class PairsState {
  pairs = $state.raw<readonly ShownPair[] | null>(null);
  counts = $state.raw({ videos: 0, posts: 0 });
  problem = $state<Problem | null>(null);
  isLooking = $state(false);
  /** Sure pairs that are not to be accepted with the others. */
  skipped = $state.raw<ReadonlySet<string>>(new Set());
  readonly sure = $derived((this.pairs ?? []).filter((pair) => pair.isSure));
  readonly doubtful = $derived((this.pairs ?? []).filter((pair) => !pair.isSure));
  readonly chosen = $derived(this.sure.filter((pair) => !this.skipped.has(pair.id)));
  #isStale = false;

  /** Looks now, and again whenever the catalogue or a decision changes. @returns what ends it */
  begin(): () => void {
    void this.look();
    return onChange(['twins', 'ties'], () => void this.look());
  }

  async look(): Promise<void> {
    if (this.isLooking) {
      this.#isStale = true;
      return;
    }
    this.isLooking = true;
    this.#isStale = false;
    const { value, problem } = await attempt(async () => {
      const { proposals, videos, posts } = await pairsWorker().propose();
      const ids = proposals.flatMap((p) => [p.video, p.post]);
      const items = await itemsByIds(ids);
      const pairs = proposals.flatMap((p): ShownPair[] => {
        const [videoItem, postItem] = [items.get(p.video), items.get(p.post)];
        return videoItem && postItem
          ? [{ ...p, id: `${p.video} ${p.post}`, videoItem, postItem }]
          : [];
      });
      return { pairs, videos, posts };
    });
    this.problem = problem;
    if (value) {
      this.pairs = value.pairs;
      this.counts = { videos: value.videos, posts: value.posts };
    }
    this.isLooking = false;
    if (this.#isStale) void this.look();
  }

  toggle(pair: ShownPair): void {
    const next = new Set(this.skipped);
    if (!next.delete(pair.id)) next.add(pair.id);
    this.skipped = next;
  }

  async decide(pairs: readonly ShownPair[], relation: Relation | 'none'): Promise<void> {
    const decided = pairs.map(({ video, post, videoItem, postItem }) => ({
      video,
      post,
      relation,
      titles: { video: videoItem.title, post: postItem.title }
    }));
    const undo = await decidePairs(decided);
    const [first] = pairs;
    const said =
      relation === 'none'
        ? `“${first?.videoItem.title}” and “${first?.postItem.title}” will not be suggested again.`
        : pairs.length === 1
          ? `“${first?.videoItem.title}” is paired.`
          : `${plural(pairs.length, 'pair', 'pairs')} made.`;
    deck.say(said, { label: 'Undo', run: undo });
  }

  async readCaptions(): Promise<void> {
    const { value, problem } = await attempt(readCaptionsForPairing);
    this.problem = problem?.kind === 'stopped' ? null : problem;
    // Also of those that were read before it was stopped.
    await this.look();
    if (!value) return;
    const failed = value.failed > 0 ? ` ${value.failed} could not be read.` : '';
    deck.say(`${plural(value.read, 'video', 'videos')} read.${failed}`);
  }
}
