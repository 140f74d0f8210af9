import { DESCRIPTION_TEMPLATE, fittingTags, USUAL_LIMITS } from '$lib/core/narration/details.ts';
import { scriptOptionsSchema } from '$lib/core/narration/line.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import type { Script } from '$lib/core/narration/script.ts';
import type { LaneLook } from '$lib/core/lanes/lane.ts';
import { languageOfVoice } from '$lib/core/narration/voiceFile.ts';
import { VOICES, usualVoice, type VoiceChoice } from '$lib/core/narration/voices.ts';
import { htmlText } from '$lib/core/text/html.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import { getOwnVoice } from '$lib/data/ownVoices.ts';
import { readBoothDefaults, readLookOfBooth } from '$lib/data/narrations.ts';
import { narrationWorker } from '$lib/workers/narration.ts';

/**
 * A post as it comes into the booth: with what the last one had, and no scenes yet.
 * @param look instead of that of the last one
 */
export async function beginNarration(
  post: Item,
  html: string,
  channels: readonly Place[],
  look: LaneLook | null = null
): Promise<Narration> {
  const usual = await readBoothDefaults();
  const { frame, resolution, style, format, voice } = look ?? (await readLookOfBooth());
  const found =
    post.language || (await narrationWorker().languageOf(`${post.title}\n${htmlText(html)}`));
  const language = found && found !== 'und' ? found : 'en';
  const isOfLanguage =
    voice !== null && (await languageSpoken(voice)).split('-')[0] === language.split('-')[0];
  const sameLanguage = usual.options?.language?.split('-')[0] === language.split('-')[0];
  return {
    id: post.id,
    options: scriptOptionsSchema.parse({
      language,
      pronunciations: sameLanguage ? (usual.options?.pronunciations ?? []) : []
    }),
    scenes: [],
    madeFrom: '',
    isEdited: false,
    voice: (isOfLanguage ? voice : null) ?? usualVoice(language),
    frame,
    resolution,
    style,
    music: '',
    musicLevel: -20,
    sounds: false,
    before: usual.before ?? '',
    after: usual.after ?? '',
    format,
    details: {
      title: [...post.title].slice(0, USUAL_LIMITS.title).join(''),
      description: usual.details?.description ?? DESCRIPTION_TEMPLATE,
      tags: fittingTags(post.tags, USUAL_LIMITS.tags),
      category: usual.details?.category ?? '',
      language,
      visibility: 'private',
      on: '',
      placeIds: channels.length === 1 ? channels.map((c) => c.id) : [],
      embeds: true
    },
    since: new Date().toISOString(),
    changed: new Date().toISOString()
  };
}

/** BCP 47; empty where there is no such voice. */
async function languageSpoken({ engine, voice }: VoiceChoice): Promise<string> {
  if (engine !== 'file')
    return VOICES.find((v) => v.engine === engine && v.voice === voice)?.language ?? '';
  const own = await getOwnVoice(voice);
  return own ? languageOfVoice(own.file) : '';
}

/** A post as a script, and the storyboard that is proposed for it. */
export const narratePost = (
  post: Item,
  html: string,
  blog: Place | null,
  options: Narration['options']
): Promise<{ script: Script; scenes: Scene[] }> =>
  narrationWorker().narrate(
    { title: post.title, html, by: post.author || blog?.title || '', url: post.url },
    options
  );
