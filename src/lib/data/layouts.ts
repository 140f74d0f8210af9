import { keptLayoutSchema, type KeptLayout } from '$lib/core/article/template/keptLayout.ts';
import { db } from './db.ts';

export const allLayouts = async (): Promise<KeptLayout[]> =>
  (await db.layouts.toArray()).sort((a, b) => a.name.localeCompare(b.name));

export const getLayout = (id: string): Promise<KeptLayout | undefined> => db.layouts.get(id);

export const saveLayout = (layout: KeptLayout): Promise<unknown> =>
  db.layouts.put(keptLayoutSchema.parse(layout));
