import { cleanHtml } from '$lib/core/feeds/clean.ts';
import { htmlText } from '$lib/core/text/html.ts';
import { type Held } from '$lib/core/delivery/outbox.ts';
import {
  isChange,
  isPost,
  type ChangePayload,
  type Payload,
  type PostPayload
} from '$lib/core/delivery/payload.ts';
import { textHash } from '$lib/core/text/textHash.ts';
import { hashOf } from '$lib/core/model/hash.ts';
import type { Item, Visibility } from '$lib/core/model/item.ts';
import { itemId } from '$lib/core/model/ids.ts';
import { keyOfUid, uidOfKey } from '$lib/core/model/origin.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { first, MicropubPlace, type Properties } from './micropubPlace.ts';
import type { OwnItem } from './place.ts';
import { commentChanges } from './postComments.ts';

/** A blog that takes posts by Micropub (W3C Recommendation of 23 May 2017). Read by its feed. */
export class MicropubBlog extends MicropubPlace {
  /** Fingerprints of our posts by their keys, as last listed. */
  readonly heldByKey = new Map<string, string>();

  async findByKey(key: string): Promise<string | null> {
    for await (const properties of this.sources()) {
      if (first(properties, 'uid') === uidOfKey(key) || originOf(properties) === key) {
        return first(properties, 'url') || null;
      }
    }
    return null;
  }

  async publish(payload: Payload, key: string): Promise<string> {
    // What it would change is not there, and a change makes no post.
    if (isChange(payload)) throw new PlaceError({ kind: 'not-found', url: this.linked.url });
    return this.create(toProperties(postOnly(payload, this.linked.url), key));
  }

  async update(url: string, payload: Payload, key: string): Promise<string> {
    if (isChange(payload)) return this.#change(url, payload.change);
    const { 'mp-slug': _slug, ...replace } = toProperties(postOnly(payload, this.linked.url), key);
    const sent = await this.micropub({ action: 'update', url, replace });
    // Micropub answers 201 with the new address when an update changed it.
    return sent.location || url;
  }

  override async remove(url: string, _key: string, payload?: Payload): Promise<void> {
    if (!payload || !isChange(payload)) return super.remove(url);
    const { change } = payload;
    switch (change.what) {
      case 'retitle':
        return this.#putTitleBack(url, change);
      case 'embed':
        return this.#removeEmbed(url, change.html);
      case 'content': {
        const there = await this.source(url);
        if (there && htmlOf(there) === change.to) await this.#setContent(url, change.from);
        return;
      }
      case 'to-draft':
        return this.#setStatus(url, change.from);
      case 'to-public':
        return this.#setStatus(url, 'draft');
      case 'date':
        return this.#setDate(url, change.from);
      case 'tags':
        return this.#changeTags(url, { add: change.remove, remove: change.add });
      case 'comments': {
        const without = [...change.without, ...change.comments.map((c) => c.uid)];
        return this.#setComments(url, { ...change, comments: [], without });
      }
    }
  }

  async look(url: string): Promise<Held | null> {
    const properties = await this.source(url);
    return properties && heldOf(properties);
  }

  isAsSent(held: Pick<Held, 'fingerprint'>, sent: Payload): boolean {
    if (!isPost(sent)) return true;
    return held.fingerprint === heldOf(toProperties(sent, '')).fingerprint;
  }

  async #change(url: string, change: ChangePayload['change']): Promise<string> {
    switch (change.what) {
      case 'retitle':
        // A title that is neither the one we knew nor the one we want is somebody's choice.
        await this.#refuseOther(url, change, (there) => first(there, 'name'));
        await this.retitle(url, change.to);
        break;
      case 'content':
        await this.#refuseOther(url, change, htmlOf);
        await this.#setContent(url, change.to);
        break;
      case 'to-draft':
        await this.#setStatus(url, 'draft');
        break;
      case 'to-public':
        await this.#setStatus(url, 'public', change.on);
        break;
      case 'date':
        await this.#setDate(url, change.to);
        break;
      case 'tags':
        await this.#changeTags(url, change);
        break;
      case 'comments':
        await this.#setComments(url, change);
        break;
      case 'embed':
        await this.addEmbed(url, change.html, change.embedUrl);
    }
    return url;
  }

  async #setDate(url: string, date: string): Promise<void> {
    await this.micropub({ action: 'update', url, replace: { published: [date] } });
  }

  async #refuseOther(
    url: string,
    { from, to }: { from: string; to: string },
    read: (there: Properties) => string
  ): Promise<void> {
    // Where it cannot be read, the change itself says why.
    const there = await this.source(url).catch(() => null);
    const is = there && read(there);
    if (is !== null && is !== from && is !== to)
      throw new PlaceError({ kind: 'changed-there', url, detail: is.slice(0, 200) });
  }

  async #setContent(url: string, html: string): Promise<void> {
    await this.micropub({ action: 'update', url, replace: { content: [{ html }] } });
  }

  async #setComments(
    url: string,
    change: Extract<ChangePayload['change'], { what: 'comments' }>
  ): Promise<void> {
    const there = await this.source(url);
    if (!there) throw new PlaceError({ kind: 'not-found', url });
    const { add, delete: gone } = commentChanges(there, change);
    const changes = {
      ...(add.length > 0 && { add: { comment: add } }),
      ...(gone.length > 0 && { delete: { comment: gone } })
    };
    if (Object.keys(changes).length > 0) await this.micropub({ action: 'update', url, ...changes });
  }

  /** Adds what is not there and takes out what is, so that the same once more changes nothing. */
  async #changeTags(
    url: string,
    { add, remove }: { add: readonly string[]; remove: readonly string[] }
  ): Promise<void> {
    const there = await this.source(url);
    if (!there) throw new PlaceError({ kind: 'not-found', url });
    const tags = new Set((there.category ?? []).map(String));
    const [come, gone] = [
      add.filter((tag) => !tags.has(tag)),
      remove.filter((tag) => tags.has(tag))
    ];
    const changes = {
      ...(come.length > 0 && { add: { category: come } }),
      ...(gone.length > 0 && { delete: { category: gone } })
    };
    if (Object.keys(changes).length > 0) await this.micropub({ action: 'update', url, ...changes });
  }

  async #setStatus(url: string, status: Held['status'], on: string | null = null): Promise<void> {
    const replace = {
      'post-status': [status === 'draft' ? 'draft' : 'published'],
      ...(status !== 'draft' && { visibility: [status] }),
      ...(on && { published: [on] })
    };
    await this.micropub({ action: 'update', url, replace });
  }

  /** A title that was changed once more since is somebody's choice, and stays. */
  async #putTitleBack(url: string, { from, to }: { from: string; to: string }): Promise<void> {
    const properties = await this.source(url);
    if (properties && first(properties, 'name') === to) await this.retitle(url, from);
  }

  async #removeEmbed(url: string, embed: string): Promise<void> {
    const properties = await this.source(url);
    if (!properties) return;
    const html = htmlOf(properties);
    const without = html.replace(`${embed}\n`, '').replace(embed, '');
    if (without === html) return;
    await this.#setContent(url, without);
  }

  /** Gives a post that we did not make another title, and changes nothing else of it. */
  async retitle(url: string, title: string): Promise<void> {
    await this.micropub({ action: 'update', url, replace: { name: [title] } });
  }

  /**
   * Puts a player in front of a post's text, unless it shows the video already.
   * @param embed HTML of the player
   */
  async addEmbed(url: string, embed: string, embedUrl: string): Promise<void> {
    const properties = await this.source(url);
    if (!properties) throw new PlaceError({ kind: 'not-found', url });
    const html = htmlOf(properties);
    if (cleanHtml(html, url).embeds.includes(embedUrl)) return;
    await this.#setContent(url, `${embed}\n${html}`);
  }

  async listOwn(): Promise<OwnItem[]> {
    const own: OwnItem[] = [];
    this.heldByKey.clear();
    for await (const properties of this.sources()) {
      const key = keyOfUid(first(properties, 'uid'));
      if (key) this.heldByKey.set(key, heldOf(properties).fingerprint);
      const visibility = visibilityOf(properties);
      if (visibility !== 'public') own.push(toOwnItem(properties, this.linked.id, visibility));
    }
    return own;
  }
}

/** What is no post is refused here before it is sent. */
function postOnly(payload: Payload, url: string): PostPayload {
  if (isPost(payload)) return payload;
  throw new PlaceError({ kind: 'refused', url, detail: 'A blog takes posts.' });
}

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
    uid: [uidOfKey(key)],
    ...(payload.date && { published: [payload.date] })
  };
}

function htmlOf(properties: Properties): string {
  const content = properties.content?.[0];
  return content && typeof content === 'object' && 'html' in content
    ? String(content.html)
    : String(content ?? '');
}

/** What somebody may have changed of a post: how the place writes its HTML makes no difference. */
function heldOf(properties: Properties): Held {
  const html = htmlOf(properties);
  const { embeds, links } = cleanHtml(html, first(properties, 'url') || 'https://post.invalid/');
  const status =
    first(properties, 'post-status') === 'draft'
      ? 'draft'
      : first(properties, 'visibility') === 'private'
        ? 'private'
        : 'public';
  const title = first(properties, 'name');
  const excerpt = first(properties, 'summary');
  const tags = (properties.category ?? []).map(String);
  const content = JSON.stringify([
    title,
    htmlText(html).replace(/\s+/g, ' ').trim(),
    embeds,
    links,
    tags.toSorted(),
    excerpt,
    status
  ]);
  const fingerprint = `${content.length}-${hashOf(content)}`;
  return { fingerprint, title, html, status, excerpt, tags, picture: pictureOf(properties) };
}

function pictureOf(properties: Properties): string {
  const photo = properties.photo?.[0];
  return photo && typeof photo === 'object' && 'value' in photo
    ? String(photo.value)
    : String(photo ?? '');
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
  const nativeId = url.replace(/[?#].*/s, '');
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
    textHash: textHash(html),
    pictures: [],
    embedUrl: '',
    contentUrl: '',
    captions: [],
    tags: (properties.category ?? []).map(String),
    embeds,
    links,
    origin: origin ?? keyOfUid(first(properties, 'uid'))
  };
  return { item, html };
}
