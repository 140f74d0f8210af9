import type { Target } from '$lib/core/lanes/settle.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place, Right } from '$lib/core/model/place.ts';
import type { Fetched } from '$lib/workers/core.worker.ts';

export interface Look {
  title: string;
  author: string;
  rights: Right[];
  categories: string[];
  keyEnds: string | null;
  allowance: Exclude<Place['allowance'], undefined>;
}

/** What every kind of place offers. Each call may throw a PlaceError. */
export interface PlaceAdapter extends Partial<Target> {
  /** Whose it is and what we may do there. */
  look(signal?: AbortSignal): Promise<Look>;
  /**
   * The documents that tell what stands there, from the newest on.
   * @param take reads one document and tells where the next one is, or nothing
   * @returns whether nothing that stands there was left out
   */
  list(take: (document: Fetched) => Promise<string>, signal: AbortSignal): Promise<boolean>;
  /** Items that only the owner can see: drafts, dated and private posts. */
  /** Whether the list of own items would tell this one, so that it is gone when it is missing there. */
  isOwn?(item: Item): boolean;
  listOwn?(signal?: AbortSignal): Promise<{ item: Item; html: string }[]>;
}
