import type { Item } from '$lib/core/model/item.ts';
import type { UpdateSource } from '$lib/core/updates/source.ts';
import { getDetails } from '$lib/data/details.ts';
import { getBody } from '$lib/data/items.ts';
import { updatesWorker } from '$lib/workers/updates.ts';
import { readDetails } from './details.ts';
import { attempt, runTask } from './tasks.svelte.ts';

/** What an update is made from: the text of a post, or what is said in a video. */
export async function readUpdateSource(item: Item): Promise<UpdateSource> {
  const kind = item.kind === 'video' ? 'video' : 'post';
  const worker = updatesWorker();
  const html = await getBody(item.id);
  let blocks = await worker.blocksOfHtml(html || `<p>${item.summary}</p>`);
  if (kind === 'video') {
    const kept = await getDetails(item.id);
    const { value } = kept
      ? { value: kept }
      : await attempt(() =>
          runTask(`Reading the captions of “${item.title}”`, (signal) => readDetails(item, signal))
        );
    const said = value
      ? await worker.blocksOfTalk(value.cues, item.title, item.language, value.chapters)
      : [];
    if (said.length > 0) blocks = said;
  }
  const language =
    item.language || (await worker.languageOf([item.title, ...blocks.map((b) => b.text)]));
  return { title: item.title, kind, link: item.url, language, blocks };
}
