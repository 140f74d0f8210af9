import { z } from 'zod';
import { limitsSchema, type Limits } from '$lib/core/narration/details.ts';
import {
  isChange,
  isVideo,
  type ChangePayload,
  type Payload,
  type VideoPayload
} from '$lib/core/delivery/payload.ts';
import { itemId } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import { keyOfUid, uidOfKey } from '$lib/core/model/origin.ts';
import { paragraphsToHtml } from '$lib/core/text/html.ts';
import { textHash } from '$lib/core/text/textHash.ts';
import { PlaceError } from '$lib/core/model/place.ts';
import { first, MicropubPlace, type Properties } from './micropubPlace.ts';
import { understood } from './understood.ts';
import { sendTo } from './wire.ts';

const configSchema = z.object({
  'upload-endpoint': z.string().default(''),
  limits: limitsSchema.default(() => limitsSchema.parse({}))
});

/** How far a channel has got with a file. */
export const processingStateSchema = z.enum([
  'awaiting-file',
  'checking',
  'making-sizes',
  'ready',
  'failed'
]);
const videoVisibilitySchema = z.enum(['public', 'unlisted', 'private']);
export interface Processing {
  state: z.infer<typeof processingStateSchema>;
  /** Between 0 and 1. */
  done: number;
  trouble: string;
  embedUrl: string;
}

/** A channel that takes what is said of videos by Micropub and their files by tus. */
export class VideoChannel extends MicropubPlace {
  /** Where files go, what the channel takes, and with which header. */
  async uploads(): Promise<{ endpoint: string; limits: Limits; authorization: string }> {
    const url = `${this.linked.micropub}?q=config`;
    const key = this.needKey();
    const { body } = await sendTo({ url, method: 'GET', key });
    const config = understood(configSchema, body, url);
    if (!config['upload-endpoint'])
      throw new PlaceError({ kind: 'refused', url, detail: 'The channel takes no files.' });
    return {
      endpoint: config['upload-endpoint'],
      limits: config.limits,
      authorization: `Bearer ${key}`
    };
  }

  async findByKey(key: string): Promise<string | null> {
    for await (const properties of this.sources())
      if (first(properties, 'uid') === uidOfKey(key)) return first(properties, 'url') || null;
    return null;
  }

  async publish(payload: Payload, key: string): Promise<string> {
    // What it would change is not there, and a change makes no video.
    if (isChange(payload)) throw new PlaceError({ kind: 'not-found', url: this.linked.url });
    return this.create(toProperties(videoOnly(payload, this.linked.url), key));
  }

  async update(url: string, payload: Payload, key: string): Promise<string> {
    if (isChange(payload)) return this.#setDate(url, dateOnly(payload, url).to);
    const replace = toProperties(videoOnly(payload, this.linked.url), key);
    const sent = await this.micropub({ action: 'update', url, replace });
    return sent.location || url;
  }

  override async remove(url: string, key?: string, payload?: Payload): Promise<void> {
    if (payload && isChange(payload)) await this.#setDate(url, dateOnly(payload, url).from);
    else await super.remove(url, key);
  }

  async #setDate(url: string, date: string): Promise<string> {
    await this.micropub({ action: 'update', url, replace: { 'publish-at': [date] } });
    return url;
  }

  /** What is said of a video at the channel, as its owner may have changed it there; null where it is gone. */
  async readSaid(
    url: string
  ): Promise<Pick<VideoPayload, 'title' | 'description' | 'tags' | 'visibility'> | null> {
    const properties = await this.source(url);
    if (!properties) return null;
    return {
      title: first(properties, 'name'),
      description: first(properties, 'content'),
      tags: (properties.category ?? []).map(String),
      visibility: understood(
        videoVisibilitySchema,
        first(properties, 'visibility') || 'public',
        url
      )
    };
  }

  /** How far the channel has got with the file of a video. */
  async fetchProcessing(url: string, signal?: AbortSignal): Promise<Processing> {
    const properties = await this.source(url, signal);
    if (!properties) throw new PlaceError({ kind: 'not-found', url });
    return {
      // A channel that says nothing of its work on files has none to do.
      state: understood(processingStateSchema, first(properties, 'state') || 'ready', url),
      done: Number(first(properties, 'progress')) || 0,
      trouble: first(properties, 'trouble'),
      embedUrl: first(properties, 'embed')
    };
  }

  /** Videos that the feed does not show: those that are not public. */
  async listOwn(): Promise<{ item: Item; html: string }[]> {
    const own: { item: Item; html: string }[] = [];
    for await (const properties of this.sources()) {
      const isReady = first(properties, 'state') === 'ready';
      if (isReady && first(properties, 'visibility') !== 'public')
        own.push({ item: toItem(properties, this.linked.id), html: '' });
    }
    return own;
  }
}

/** Of videos that stand at a channel, only their dates are changed by themselves. */
function dateOnly({ change }: ChangePayload, url: string): { from: string; to: string } {
  if (change.what === 'date') return change;
  throw new PlaceError({ kind: 'refused', url, detail: 'A channel takes videos.' });
}

function videoOnly(payload: Payload, url: string): VideoPayload {
  if (isVideo(payload)) return payload;
  throw new PlaceError({ kind: 'refused', url, detail: 'A channel takes videos.' });
}

function toProperties(payload: VideoPayload, key: string): Properties {
  return {
    name: [payload.title],
    content: [payload.description],
    category: payload.tags,
    section: payload.category ? [payload.category] : [],
    language: [payload.language],
    visibility: [payload.visibility],
    'publish-at': payload.publishAt ? [payload.publishAt] : [],
    'based-on': [payload.madeFrom],
    captions: payload.captions ? [payload.captions] : [],
    chapters: payload.chapters ? [payload.chapters] : [],
    uid: [uidOfKey(key)]
  };
}

function toItem(properties: Properties, placeId: string): Item {
  const url = first(properties, 'url');
  const madeFrom = first(properties, 'based-on');

  const visibility = understood(
    z.enum(['unlisted', 'private']),
    first(properties, 'visibility'),
    url
  );
  // What is private until a date says when in `published`.
  const isScheduled =
    visibility === 'private' && Date.parse(first(properties, 'published')) > Date.now();
  const photo = first(properties, 'photo');
  return {
    id: itemId(placeId, url),
    placeId,
    kind: 'video',
    nativeId: url,
    url,
    title: first(properties, 'name') || url,
    published: first(properties, 'published') || null,
    updated: first(properties, 'updated') || null,
    visibility: isScheduled ? 'scheduled' : visibility,
    author: '',
    language: first(properties, 'language'),
    licence: '',
    duration: Number(first(properties, 'duration')) || null,
    summary: first(properties, 'content').slice(0, 240),
    textHash: textHash(paragraphsToHtml(first(properties, 'content'))),
    pictures: photo ? [{ url: photo, width: null, height: null }] : [],
    embedUrl: first(properties, 'embed'),
    contentUrl: first(properties, 'video'),
    captions: [],
    tags: (properties.category ?? []).map(String),
    embeds: [],
    links: [],
    origin: keyOfUid(first(properties, 'uid')),
    ...(madeFrom && { madeFrom })
  };
}
