import { SvelteMap } from 'svelte/reactivity';
import { hashOf } from '$lib/core/model/hash.ts';
import type { Style } from '$lib/core/narration/styles.ts';
import { mediaIdsWith, removeMedia, saveMedia } from '$lib/data/media.ts';
import { entriesOfItem } from '$lib/data/outbox.ts';
import { keptFile } from '$lib/data/media.ts';
import { isKept } from '$lib/places/network.ts';
import { readAddress } from '$lib/places/wire.ts';
import { cutPicture } from '$lib/video/cutPicture.ts';
import { attempt } from '$lib/work/tasks.svelte.ts';
import { videoWorker } from '$lib/workers/video.ts';

/** Quotations are square where a place shows any shape. */
const USUAL_SHAPE = 1;

export interface PictureWish {
  alt: string;
  /** Cut from a picture at an address. */
  cut?: { url: string; subject: { x: number; y: number } };
  /** Drawn from words. */
  card?: { text: string; by: string; style: Style };
}

/** The pictures that go with the updates of one item, made for the shape that each place shows. */
export class ShownPictures {
  /** What the browser can show for a kept file, by its name. */
  readonly #shown = new SvelteMap<string, string>();
  readonly #made = new Map<string, Promise<string>>();
  readonly #read = new Map<string, Promise<Blob | null>>();

  constructor(private readonly itemId: string) {}

  /** Where a picture or clip can be seen from this page. */
  addressOf(url: string): string {
    return isKept(url) ? (this.#shown.get(url) ?? '') : url;
  }

  /** A picture for one shape; the picture itself where nothing is to be done or nothing can. */
  async make(
    { alt, cut, card }: PictureWish,
    shape: number | null
  ): Promise<{ url: string; alt: string } | null> {
    if (card) {
      const id = this.#name(JSON.stringify([card, shape]));
      const draw = () =>
        videoWorker().quotation(card.text, card.by, shape ?? USUAL_SHAPE, card.style);
      return card.text.trim() ? { url: await this.#once(id, draw), alt } : null;
    }
    if (!cut) return null;
    const { url, subject } = cut;
    if (!shape) return { url, alt };
    const id = this.#name(JSON.stringify([cut, shape]));
    const made = await this.#once(id, async () => {
      const blob = await this.#picture(url);
      return blob && cutPicture(blob, shape, subject);
    });
    return { url: made || url, alt };
  }

  /** Shows a file that is kept already, such as a clip. */
  async show(id: string): Promise<void> {
    const blob = this.#shown.has(id) ? null : await keptFile(id);
    if (blob) this.#shown.set(id, URL.createObjectURL(blob));
  }

  #name(what: string): string {
    return `own:shown/${this.itemId}/${hashOf(what).toString(36)}`;
  }

  #once(id: string, make: () => Promise<Blob | null>): Promise<string> {
    const known = this.#made.get(id);
    if (known) return known;
    const made = (async () => {
      const blob = await make();
      if (!blob) return '';
      await saveMedia({ id, name: 'picture', blob });
      this.#shown.set(id, URL.createObjectURL(blob));
      return id;
    })();
    this.#made.set(id, made);
    return made;
  }

  #picture(url: string): Promise<Blob | null> {
    const known = this.#read.get(url);
    if (known) return known;
    const read = (async () => {
      const { value } = await attempt(() => readAddress(url));
      return value && new Blob([value.bytes as Uint8Array<ArrayBuffer>]);
    })();
    this.#read.set(url, read);
    return read;
  }

  /** Frees what the page holds, and what is kept and waits for nothing. */
  async close(): Promise<void> {
    for (const address of this.#shown.values()) URL.revokeObjectURL(address);
    const entries = await entriesOfItem(this.itemId);
    const needed = new Set(
      entries.flatMap(({ payload, state }) =>
        'kind' in payload && payload.kind === 'update' && state !== 'removed'
          ? [payload.picture?.url]
          : []
      )
    );
    const kept = await mediaIdsWith(`own:shown/${this.itemId}/`);
    await removeMedia(kept.filter((id) => !needed.has(id)));
  }
}
