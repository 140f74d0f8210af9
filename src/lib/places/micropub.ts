import { z } from 'zod';
import { cleanHtml } from '$lib/core/feeds/clean.ts';
import { htmlText } from '$lib/core/feeds/text.ts';
import type { PostPayload } from '$lib/core/lanes/outbox.ts';
import type { Item, Visibility } from '$lib/core/model/item.ts';
import { itemId } from '$lib/core/model/ids.ts';
import { PlaceError, rightSchema, type Place, type Right } from '$lib/core/model/place.ts';
import { FeedPlace } from './feed.ts';
import type { Look } from './place.ts';
import { sendTo, type SendRequest, type Sent } from './wire.ts';

/** Posts looked through for a key, newest first. */
const MOST_SEARCHED = 400;

const sourceSchema = z.object({ properties: z.record(z.string(), z.array(z.unknown())) });
const listSchema = z.object({
  items: z.array(sourceSchema).catch([]),
  paging: z.object({ after: z.coerce.string() }).optional().catch(undefined)
});
type Properties = z.infer<typeof sourceSchema>['properties'];

/** A blog that takes posts by Micropub (W3C Recommendation of 23 May 2017). Read by its feed. */
export class MicropubBlog extends FeedPlace {
  constructor(
    linked: Place,
    private readonly key: string
  ) {
    super(linked);
  }

  override async look(signal?: AbortSignal): Promise<Look> {
    const look = await super.look(signal);
    if (!this.key) return look;
    const [rights, categories] = await Promise.all([
      this.#rights(signal),
      this.#categories(signal)
    ]);
    return { ...look, rights: ['read', ...rights], categories };
  }

  async findByKey(key: string): Promise<string | null> {
    for await (const properties of this.#sources()) {
      if (first(properties, 'uid') === uid(key) || originOf(properties) === key) {
        return first(properties, 'url') || null;
      }
    }
    return null;
  }

  async place(payload: PostPayload, key: string): Promise<string> {
    const sent = await this.#micropub({
      type: ['h-entry'],
      properties: toProperties(payload, key)
    });
    if (!sent.location) {
      throw new PlaceError({
        kind: 'server-error',
        url: this.linked.micropub,
        detail: 'No address came back.'
      });
    }
    return sent.location;
  }

  async replace(url: string, payload: PostPayload, key: string): Promise<string> {
    const { 'mp-slug': _slug, ...replace } = toProperties(payload, key);
    const sent = await this.#micropub({ action: 'update', url, replace });
    // Micropub answers 201 with the new address when an update changed it.
    return sent.location || url;
  }

  async remove(url: string): Promise<void> {
    await this.#micropub({ action: 'delete', url });
  }

  /** Gives a post that we did not make another title, and changes nothing else of it. */
  async retitle(url: string, title: string): Promise<void> {
    await this.#micropub({ action: 'update', url, replace: { name: [title] } });
  }

  async listOwn(): Promise<{ item: Item; html: string }[]> {
    const own: { item: Item; html: string }[] = [];
    for await (const properties of this.#sources()) {
      const visibility = visibilityOf(properties);
      if (visibility !== 'public') own.push(toOwnItem(properties, this.linked.id, visibility));
    }
    return own;
  }

  async #rights(signal?: AbortSignal): Promise<Right[]> {
    // Where a blog names no token endpoint, its configuration shows at least that the key is good.
    const url = this.linked.tokenEndpoint || `${this.linked.micropub}?q=config`;
    const { body } = await sendTo({ url, method: 'GET', key: this.key }, signal);
    const scope = z.object({ scope: z.string() }).safeParse(body).data?.scope;
    if (scope === undefined) return ['create', 'update', 'delete'];
    return scope.split(/\s+/).flatMap((name) => rightSchema.safeParse(name).data ?? []);
  }

  async #categories(signal?: AbortSignal): Promise<string[]> {
    const url = `${this.linked.micropub}?q=category`;
    try {
      const { body } = await sendTo({ url, method: 'GET', key: this.key }, signal);
      return z.object({ categories: z.array(z.string()) }).parse(body).categories;
    } catch {
      // The query is optional in Micropub; without it categories are typed.
      return [];
    }
  }

  async *#sources(): AsyncGenerator<Properties> {
    let after = '';
    for (let seen = 0; seen < MOST_SEARCHED;) {
      const url = new URL(this.linked.micropub);
      url.searchParams.set('q', 'source');
      url.searchParams.set('limit', '50');
      if (after) url.searchParams.set('after', after);
      const { body } = await sendTo({ url: url.href, method: 'GET', key: this.#needKey() });
      const { items, paging } = listSchema.parse(body);
      for (const { properties } of items) yield properties;
      seen += items.length;
      if (!paging || items.length === 0) return;
      after = paging.after;
    }
  }

  #micropub(json: unknown): Promise<Sent> {
    const request: SendRequest = {
      url: this.linked.micropub,
      method: 'POST',
      key: this.#needKey(),
      json
    };
    return sendTo(request);
  }

  #needKey(): string {
    if (!this.key) throw new PlaceError({ kind: 'key-missing', url: this.linked.url });
    return this.key;
  }
}

const uid = (key: string): string => `urn:uuid:${key}`;

function toProperties(payload: PostPayload, key: string): Properties {
  const { picture } = payload;
  return {
    name: [payload.title],
    content: [{ html: payload.html }],
    summary: payload.excerpt ? [payload.excerpt] : [],
    category: [...payload.categories, ...payload.tags],
    author: payload.author ? [payload.author] : [],
    photo: picture ? [{ value: picture.url, alt: picture.alt }] : [],
    'post-status': [payload.status === 'draft' ? 'draft' : 'published'],
    visibility: [payload.status === 'private' ? 'private' : 'public'],
    'mp-slug': payload.slug ? [payload.slug] : [],
    'mp-comments': [payload.comments],
    uid: [uid(key)],
    ...(payload.date && { published: [payload.date] })
  };
}

const first = (properties: Properties, name: string): string => String(properties[name]?.[0] ?? '');

function htmlOf(properties: Properties): string {
  const content = properties.content?.[0];
  return content && typeof content === 'object' && 'html' in content
    ? String(content.html)
    : String(content ?? '');
}

const originOf = (properties: Properties): string | null =>
  cleanHtml(htmlOf(properties), first(properties, 'url')).origin;

function visibilityOf(properties: Properties): Visibility {
  if (first(properties, 'post-status') === 'draft') return 'draft';
  const visibility = first(properties, 'visibility');
  if (visibility === 'private' || visibility === 'unlisted') return visibility;
  return Date.parse(first(properties, 'published')) > Date.now() ? 'scheduled' : 'public';
}

function toOwnItem(properties: Properties, placeId: string, visibility: Visibility) {
  const url = first(properties, 'url');
  // Its feed will call it by its plain address once it is public; it is the same item then.
  const nativeId = url.replace(/[?#].*$/, '');
  const { html, origin, embeds, links } = cleanHtml(htmlOf(properties), url);
  const item: Item = {
    id: itemId(placeId, nativeId),
    placeId,
    kind: 'post',
    nativeId,
    url,
    title: first(properties, 'name') || url,
    published: first(properties, 'published') || null,
    updated: first(properties, 'updated') || first(properties, 'published') || null,
    visibility,
    author: first(properties, 'author'),
    language: '',
    licence: '',
    duration: null,
    summary: first(properties, 'summary') || htmlText(html).slice(0, 240),
    pictures: [],
    embedUrl: '',
    contentUrl: '',
    captions: [],
    tags: (properties.category ?? []).map(String),
    embeds,
    links,
    origin: origin ?? (/^urn:uuid:(.+)$/.exec(first(properties, 'uid'))?.[1] || null)
  };
  return { item, html };
}
