import { DESCRIPTION_TEMPLATE, fittingTags, USUAL_LIMITS } from '$lib/core/narration/details.ts';
import { scriptOptionsSchema } from '$lib/core/narration/line.ts';
import type { Narration } from '$lib/core/narration/narration.ts';
import type { Scene } from '$lib/core/narration/scenes.ts';
import type { Script } from '$lib/core/narration/script.ts';
import { styleSchema } from '$lib/core/narration/styles.ts';
import { usualVoice } from '$lib/core/narration/voices.ts';
import { htmlText } from '$lib/core/text/html.ts';
import type { Item } from '$lib/core/model/item.ts';
import type { Place } from '$lib/core/model/place.ts';
import { readBoothDefaults } from '$lib/data/narrations.ts';
import { narrationWorker } from '$lib/workers/narration.ts';

/** A post as it comes into the booth: with what the last one had, and no scenes yet. */
export async function beginNarration(
  post: Item,
  html: string,
  channels: readonly Place[]
): Promise<Narration> {
  const usual = await readBoothDefaults();
  const found =
    post.language || (await narrationWorker().languageOf(`${post.title}\n${htmlText(html)}`));
  const language = found && found !== 'und' ? found : 'en';
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
    voice: (sameLanguage ? usual.voice : null) ?? usualVoice(language),
    frame: usual.frame ?? 'wide',
    style: usual.style ?? styleSchema.parse({}),
    music: '',
    musicLevel: -20,
    before: usual.before ?? '',
    after: usual.after ?? '',
    format: usual.format ?? 'webm',
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
