import sameValue from 'fast-deep-equal';
import { templateSchema, type Template } from '$lib/core/article/template/template.ts';
import { db } from './db.ts';
import type { Draft, Work } from '$lib/core/model/rows.ts';

/** What lies on the desk of a video: the draft of its post, and what was done by hand. */
export async function readDesk(videoId: string): Promise<{ draft?: Draft; work?: Work }> {
  const [draft, work] = await Promise.all([db.drafts.get(videoId), db.work.get(videoId)]);
  return { draft, work };
}

/** All that can be changed on the desk of a video, field by field. */
export type DeskFields = Template &
  Pick<Draft, 'status' | 'on' | 'placeId'> &
  Required<Omit<Work, 'id'>>;

const draftOf = (
  id: string,
  fields: DeskFields
): Pick<Draft, 'id' | 'template' | 'status' | 'on' | 'placeId'> => ({
  id,
  template: templateSchema.parse(fields),
  status: fields.status,
  on: fields.on,
  placeId: fields.placeId
});

const workOf = (
  id: string,
  { chapters, tidy, pictures, phrases, choices, edited }: DeskFields
): Work => ({
  id,
  chapters,
  tidy,
  pictures,
  phrases,
  choices,
  edited
});

function fieldsOf(draft?: Draft, work?: Work): Partial<DeskFields> | null {
  if (!draft && !work) return null;
  const { id: _id, ...done } = work ?? { id: '' };
  const { template, status, on, placeId } = draft ?? {};
  return { ...template, ...(draft && { status, on, placeId }), ...done } as Partial<DeskFields>;
}

export async function storedDesk(videoId: string): Promise<Partial<DeskFields> | null> {
  const { draft, work } = await readDesk(videoId);
  return fieldsOf(draft, work);
}

/**
 * Keeps what `merge` makes of what is kept; since when the video lies on the desk stays as it was.
 * @param now ISO 8601
 */
export function updateDesk(
  videoId: string,
  now: string,
  merge: (stored: Partial<DeskFields> | null) => DeskFields
): Promise<void> {
  return db.transaction('rw', db.drafts, db.work, async () => {
    const [draft, work] = await Promise.all([db.drafts.get(videoId), db.work.get(videoId)]);
    const fields = merge(fieldsOf(draft, work));
    const wanted = draftOf(videoId, fields);
    // The twins depend on whether there is a draft: while the text is written it stays untouched.
    if (!draft || !sameValue({ ...draft, ...wanted }, draft))
      await db.drafts.put({ ...wanted, since: draft?.since ?? now, changed: now });
    await db.work.put(workOf(videoId, fields));
  });
}

/** The layout of the last post that was made from a channel. */
export const lastTemplate = async (channelId: string): Promise<Template | undefined> =>
  (await db.templates.get(channelId))?.template;

/** Drafts of a place: on the desk for its videos, or in the booth for its posts. */
export async function countDrafts(placeId: string): Promise<number> {
  const ids = await db.items.where({ placeId }).primaryKeys();
  const [drafts, narrations] = await Promise.all([
    db.drafts.where('id').anyOf(ids).count(),
    db.narrations.where('id').anyOf(ids).count()
  ]);
  return drafts + narrations;
}
