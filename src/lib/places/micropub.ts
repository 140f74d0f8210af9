import { cleanHtml } from '$lib/core/feeds/clean.ts';
import { htmlText } from '$lib/core/feeds/text.ts';
import { isUpdate, isVideo, type Payload, type PostPayload } from '$lib/core/lanes/outbox.ts';
import type { Item, Visibility } from '$lib/core/model/item.ts';
import { itemId } from '$lib/core/model/ids.ts';
import { keyOfUid, uidOfKey } from '$lib/core/model/origin.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { first, MicropubPlace, type Properties } from './micropubPlace.ts';

/** A blog that takes posts by Micropub (W3C Recommendation of 23 May 2017). Read by its feed. */
export class MicropubBlog extends MicropubPlace {
  async findByKey(key: string): Promise<string | null> {
    for await (const properties of this.sources()) {
      if (first(properties, 'uid') === uidOfKey(key) || originOf(properties) === key) {
        return first(properties, 'url') || null;
      }
    }
    return null;
  }

  async place(payload: Payload, key: string): Promise<string> {
    return this.create(toProperties(postOnly(payload, this.linked.url), key));
  }

  async replace(url: string, payload: Payload, key: string): Promise<string> {
    const { 'mp-slug': _slug, ...replace } = toProperties(postOnly(payload, this.linked.url), key);
    const sent = await this.micropub({ action: 'update', url, replace });
    // Micropub answers 201 with the new address when an update changed it.
    return sent.location || url;
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
    await this.micropub({
      action: 'update',
      url,
      replace: { content: [{ html: `${embed}\n${html}` }] }
    });
  }

  isOwn(item: Item): boolean {
    return item.visibility !== 'public';
  }

  async listOwn(): Promise<{ item: Item; html: string }[]> {
    const own: { item: Item; html: string }[] = [];
    for await (const properties of this.sources()) {
      const visibility = visibilityOf(properties);
      if (visibility !== 'public') own.push(toOwnItem(properties, this.linked.id, visibility));
    }
    return own;
  }
}

/** What is no post is refused here before it is sent. */
function postOnly(payload: Payload, url: string): PostPayload {
  if (isVideo(payload) || isUpdate(payload))
    throw new PlaceError({ kind: 'refused', url, detail: 'A blog takes posts.' });
  return payload;
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
    origin: origin ?? keyOfUid(first(properties, 'uid'))
  };
  return { item, html };
}
