import type { PostPayload } from '$lib/core/delivery/payload.ts';
import { keepMaking } from '$lib/data/baselines.ts';
import type { Draft } from '$lib/core/model/rows.ts';
import { requestPost, type PublishRequest } from '$lib/data/outbox.ts';
import { deliverEntry } from '$lib/delivery/deliverEntry.ts';
import type { NewMaking } from '$lib/make/making.ts';

/**
 * Writes a post into the outbox, then sends it. Its draft is done; its layout is kept, and what it was
 * made from.
 */
export async function publishPost(
  request: PublishRequest & { payload: PostPayload },
  draft: Draft,
  { making, text }: NewMaking,
  channelId: string
): Promise<void> {
  await keepMaking(making, text);
  const payload = { ...request.payload, making: making.id };
  const done = { channelId, template: structuredClone(draft.template), draftId: draft.id };
  await requestPost({ ...request, payload }, done, Date.now());
  void deliverEntry(request.key);
}
