import type { Target } from '$lib/core/delivery/deliver.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place, Right } from '$lib/core/model/place.ts';

/** An item that no feed shows, with its cleaned HTML. */
export interface OwnItem {
  item: Item;
  html: string;
}

export interface Capabilities {
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
  fetchCapabilities(signal?: AbortSignal): Promise<Capabilities>;
  /** What only the owner sees: drafts, dated and private posts and videos. */
  listOwn?(signal?: AbortSignal): Promise<OwnItem[]>;
  /** What the place holds of items that were made here, as last listed: fingerprints by key. */
  readonly heldByKey?: ReadonlyMap<string, string>;
}
