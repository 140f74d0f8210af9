import type { Draft } from '$lib/data/rows.ts';
import { requestPost, type PublishRequest } from '$lib/data/outbox.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';

/** Writes a post into the outbox, then sends it. Its draft is done; its layout is kept. */
export async function publishPost(
  request: PublishRequest,
  channelId: string,
  draft: Draft
): Promise<void> {
  const template = structuredClone(draft.template);
  await requestPost(request, { channelId, template, draftId: draft.id }, Date.now());
  void deliverEntry(request.key);
}
