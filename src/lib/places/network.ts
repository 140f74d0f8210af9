import { z } from 'zod';
import { isUpdate, type Payload, type UpdatePayload } from '$lib/core/delivery/payload.ts';
import type { Target } from '$lib/core/delivery/deliver.ts';
import { allowanceSchema } from '$lib/core/model/allowance.ts';
import type { Network } from '$lib/core/model/network.ts';
import { keyOfUid, uidOfKey } from '$lib/core/model/origin.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import type { Figures } from '$lib/core/reach/figures.ts';
import { updateLimitsSchema } from '$lib/core/updates/placeLimits.ts';
import { readKeyFacts } from './keyFacts.ts';
import { understood } from './understood.ts';
import { callDirectly, sendTo } from './wire.ts';

/** Updates looked through for a key, newest first. */
const MAX_SEARCHED = 400;

const optionSchema = z.object({
  name: z.string(),
  replies: z.object({ totalItems: z.number() }).default({ totalItems: 0 })
});
/** A collection of ActivityStreams: what matters of it is how many there are. */
const collectionSchema = z
  .object({ totalItems: z.number().int().nonnegative() })
  .optional()
  .catch(undefined);
const objectSchema = z.object({
  id: z.string(),
  url: z.string().default(''),
  context: z.string().default(''),
  oneOf: z.array(optionSchema).default([]),
  likes: collectionSchema,
  shares: collectionSchema,
  replies: collectionSchema,
  closed: z.string().nullish()
});
const pageSchema = z.object({
  orderedItems: z.array(z.object({ object: objectSchema })),
  next: z.string().nullish()
});
const allowanceOnlySchema = z.object({ allowance: allowanceSchema.nullish() });
const tagCountsSchema = z.record(z.string(), z.number());
type Found = z.infer<typeof objectSchema>;

/** What has come of a poll or quiz so far. */
export interface Results {
  votes: { name: string; count: number }[];
  isClosed: boolean;
}

/** A network that takes activities in its outbox (ActivityStreams 2.0, as ActivityPub's clients do). */
export class UpdateNetwork implements Target {
  /** The updates that others follow, by their keys. */
  readonly #before = new Map<string, string>();

  /**
   * @param fileOf a kept file by its name
   * @param sent where kept files lie at the network: what is sent is added, and not sent again
   */
  constructor(
    private readonly linked: Pick<
      Network,
      'outbox' | 'limitsUrl' | 'tagCounts' | 'uploadMedia' | 'tokenEndpoint'
    >,
    private readonly key: string,
    private readonly fileOf: (name: string) => Promise<Blob | null> = async () => null,
    private readonly sent = new Map<string, string>()
  ) {}

  /** What it takes and how much of its allowance is left. */
  async fetchLimits(signal?: AbortSignal): Promise<Pick<Network, 'limits' | 'allowance'>> {
    const { limitsUrl: url } = this.linked;
    const { body } = await sendTo({ url, method: 'GET' }, signal);
    const limits = understood(updateLimitsSchema, body, url);
    const { allowance } = understood(allowanceOnlySchema, body, url);
    return { limits, allowance: allowance ?? null };
  }

  /**
   * Until when the key is good, or null where that is not told.
   * @throws PlaceError `key-refused` where it is not good any more
   */
  async keyEnds(signal?: AbortSignal): Promise<string | null> {
    const { tokenEndpoint: url } = this.linked;
    if (!url || !this.key) return null;
    const { body } = await sendTo({ url, method: 'GET', key: this.key }, signal);
    return readKeyFacts(body, url).keyEnds;
  }

  /** How often hashtags are used there, by their names in lower case; empty where it does not tell. */
  async tagCounts(names: readonly string[], signal?: AbortSignal): Promise<Map<string, number>> {
    if (!this.linked.tagCounts || names.length === 0) return new Map();
    const url = new URL(this.linked.tagCounts);
    url.searchParams.set('names', names.join(','));
    const { body } = await sendTo({ url: url.href, method: 'GET' }, signal);
    return new Map(Object.entries(understood(tagCountsSchema, body, url.href)));
  }

  async findByKey(key: string): Promise<string | null> {
    for await (const found of this.#told())
      if (keyOfUid(found.context) === key) return found.url || found.id;
    return null;
  }

  /** Sends the files of an update first, and sees that the part before it is there. */
  async prepare(payload: Payload): Promise<void> {
    const { picture, clip, part } = update(payload);
    for (const file of [picture, clip])
      if (file && isKept(file.url) && !this.sent.has(file.url))
        this.sent.set(file.url, await this.#upload(file.url));
    if (!part?.after) return;
    const before = await this.findByKey(part.after);
    if (!before) throw new PlaceError({ kind: 'busy', detail: 'The part before it is not there.' });
    this.#before.set(part.after, before);
  }

  async #upload(name: string): Promise<string> {
    const { uploadMedia: url } = this.linked;
    const file = await this.fileOf(name);
    if (!file)
      throw new PlaceError({ kind: 'not-found', detail: 'The file is not kept any more.' });
    if (!url) throw new PlaceError({ kind: 'refused', detail: 'It takes no files.' });
    const body = new FormData();
    body.set('file', file);
    const address = await callDirectly(url, { method: 'POST', body }, this.key, (answer) =>
      answer.headers.get('location')
    );
    if (!address) throw new PlaceError({ kind: 'refused', url, detail: 'It tells no address.' });
    return new URL(address, url).href;
  }

  /** The update as an object of its own network: with the addresses that `prepare` learned. */
  #object(payload: Payload, key: string): object {
    const ready = update(payload);
    const at = <T extends { url: string }>(file: T | null): T | null =>
      file && { ...file, url: this.sent.get(file.url) ?? file.url };
    const after = this.#before.get(ready.part?.after ?? '');
    return {
      ...toObject({ ...ready, picture: at(ready.picture), clip: at(ready.clip) }, key),
      ...(after && { inReplyTo: after })
    };
  }

  async publish(payload: Payload, key: string): Promise<string> {
    const sent = await this.#send({ type: 'Create', object: this.#object(payload, key) });
    return sent.location || ((await this.findByKey(key)) ?? '');
  }

  async update(url: string, payload: Payload, key: string): Promise<string> {
    const object = { ...this.#object(payload, key), id: url };
    const sent = await this.#send({ type: 'Update', object });
    return sent.location || url;
  }

  async remove(url: string): Promise<void> {
    await this.#send({ type: 'Delete', object: url });
  }

  /** @returns null where the update is gone or is no poll */
  async results(key: string): Promise<Results | null> {
    for await (const { context, oneOf, closed } of this.#told()) {
      if (keyOfUid(context) !== key || oneOf.length === 0) continue;
      return {
        votes: oneOf.map(({ name, replies }) => ({ name, count: replies.totalItems })),
        isClosed: Boolean(closed)
      };
    }
    return null;
  }

  /** What has come of the latest updates from here, by their keys. */
  async figures(signal?: AbortSignal): Promise<Map<string, Figures>> {
    const figures = new Map<string, Figures>();
    for await (const { context, oneOf, likes, shares, replies } of this.#told(signal)) {
      const key = keyOfUid(context);
      if (!key) continue;
      figures.set(key, {
        ...(likes && { likes: likes.totalItems }),
        ...(shares && { shares: shares.totalItems }),
        ...(replies && { comments: replies.totalItems }),
        ...(oneOf.length > 0 && { votes: oneOf.reduce((sum, o) => sum + o.replies.totalItems, 0) })
      });
    }
    return figures;
  }

  async *#told(signal?: AbortSignal): AsyncGenerator<Found> {
    let url: string | undefined = this.linked.outbox;
    const { origin } = new URL(url);
    for (let seen = 0; url && seen < MAX_SEARCHED;) {
      const { body } = await sendTo({ url, method: 'GET', key: this.key || undefined }, signal);
      const page: z.infer<typeof pageSchema> = understood(pageSchema, body, url);
      for (const { object } of page.orderedItems) yield object;
      seen += page.orderedItems.length;
      if (page.orderedItems.length === 0) return;
      const next: string = page.next ?? '';
      // The key goes to its own origin only.
      url = next && URL.canParse(next) && new URL(next).origin === origin ? next : undefined;
    }
  }

  #send(activity: object): ReturnType<typeof sendTo> {
    const { outbox: url } = this.linked;
    if (!this.key) throw new PlaceError({ kind: 'key-missing', url });
    const json = { '@context': 'https://www.w3.org/ns/activitystreams', ...activity };
    return sendTo({ url, method: 'POST', key: this.key, json });
  }
}

/** Whether a picture or clip is a file kept in this browser; else it has an address. */
export const isKept = (url: string): boolean => url.startsWith('own:');

function update(payload: Payload): UpdatePayload {
  if (isUpdate(payload)) return payload;
  throw new PlaceError({ kind: 'refused', detail: 'A network takes updates.' });
}

/** An update as an ActivityStreams object, with its key as what it belongs to. */
export function toObject(payload: UpdatePayload, key: string): object {
  const { form, text, title, hasTitle, hashtags, options, why, closes } = payload;
  const { picture, clip, button } = payload;
  return {
    type: form === 'text' ? 'Note' : 'Question',
    context: uidOfKey(key),
    content: text,
    ...(hasTitle && { name: title }),
    tag: hashtags.map((name) => ({ type: 'Hashtag', name })),
    attachment: [
      ...(picture ? [{ type: 'Image', url: picture.url, name: picture.alt }] : []),
      ...(clip ? [videoOf(clip)] : []),
      ...(button ? [{ type: 'Link', href: button.url, name: button.label }] : [])
    ],
    ...(form !== 'text' && {
      oneOf: options.map((o) => ({ name: o.text, ...(o.right && { isRight: true }) })),
      ...(why && { summary: why }),
      ...(closes && { endTime: closes })
    })
  };
}

const videoOf = ({ url, alt, seconds, type }: NonNullable<UpdatePayload['clip']>): object => ({
  type: 'Video',
  url,
  name: alt,
  mediaType: type,
  // ISO 8601.
  duration: `PT${Math.round(seconds * 10) / 10}S`
});
