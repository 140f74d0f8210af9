import { DateTime } from 'luxon';
import { chaptersVtt } from '$lib/core/chapters/formats.ts';
import type { MakeFinding } from '$lib/core/delivery/outbox.ts';
import type { VideoPayload } from '$lib/core/delivery/payload.ts';
import type { Transfer } from '$lib/core/delivery/transfer.ts';
import { placementKey } from '$lib/core/model/ids.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import {
  checkDetails,
  fillDescription,
  isHeldBack,
  postFields,
  USUAL_LIMITS,
  type DetailsFinding,
  type PostFields,
  type VideoDetails
} from '$lib/core/narration/details.ts';
import type { Render } from '$lib/core/narration/narration.ts';

/** What goes with a narrated video to a channel. */
export interface VideoInput {
  post: Item;
  blog: Place | null;
  channel: Place | null;
  details: VideoDetails;
  /** The finished file, or null while there is none. */
  render: Render | null;
  now: Date;
}

/** A narrated video as it would go out to one channel. */
export interface MadeVideo {
  key: string;
  fields: PostFields;
  /** The description as it goes out. */
  description: string;
  payload: VideoPayload;
  findings: DetailsFinding[];
}

/** Makes what is said of a narrated video at a channel. Keeps nothing. */
export function makeVideoPayload({
  post,
  blog,
  channel,
  details,
  render,
  now
}: VideoInput): MadeVideo {
  const chapters = render?.chapters ?? [];
  const fields = postFields({
    post,
    chapters,
    blog: { title: blog?.title ?? '', url: blog?.url ?? '' },
    channel: { title: channel?.title ?? '', url: channel?.url ?? '' },
    now: now.toISOString()
  });
  const description = fillDescription(details.description, fields);
  const { title, tags, category, language, visibility, on } = details;
  const isDated = visibility === 'dated';
  return {
    key: channel ? videoKey(post, channel) : '',
    fields,
    description: description.text,
    payload: {
      kind: 'video',
      title,
      tags: [...tags],
      category,
      language,
      description: description.text,
      visibility: isDated ? 'private' : visibility,
      publishAt: isDated && on ? new Date(on).toISOString() : null,
      madeFrom: post.url,
      captions: render?.captions ?? '',
      chapters: render && chapters.length > 0 ? chaptersVtt(chapters, render.seconds) : ''
    },
    findings: checkDetails(details, description, USUAL_LIMITS, localTime(now))
  };
}

/** Local date and time as a date field has it. */
const localTime = (now: Date): string => DateTime.fromJSDate(now).toFormat("yyyy-MM-dd'T'HH:mm");

/** Findings of a video as a lane weighs them. */
export const weighedVideo = (findings: readonly DetailsFinding[]): MakeFinding[] =>
  findings.map((finding) => ({
    of: 'video',
    level: isHeldBack([finding]) ? 'wrong' : 'look',
    finding: { ...finding }
  }));

/** The file of a finished video on its way to a channel, to be sent once the video stands there. */
export function transferOf(
  key: string,
  { post, channel, details, render, now }: VideoInput & { channel: Place; render: Render },
  thumbnail: string,
  before: Transfer | null
): Transfer {
  const isSame = before?.file === render.file;
  return {
    key,
    placeId: channel.id,
    itemId: post.id,
    title: details.title,
    file: render.file,
    bytes: render.bytes,
    embeds: details.embeds,
    thumbnail,
    type: render.format === 'mp4' ? 'video/mp4' : 'video/webm',
    // The same file goes on where it was.
    uploadUrl: isSame ? before.uploadUrl : '',
    sent: isSame && before.state === 'ready' ? before.sent : 0,
    state: isSame && before.state === 'ready' ? 'ready' : 'waiting',
    problem: null,
    attempts: 0,
    nextTry: now.getTime(),
    updated: now.getTime()
  };
}

/** The key of a post's video at a channel, the same on every machine. */
export const videoKey = (post: Item, channel: Place): string =>
  placementKey(post.url || post.nativeId, 'video', channel.feedUrl);
