import { z } from 'zod';
import { busySchema, type Busy } from '$lib/core/model/busy.ts';
import { readSetting, saveSetting } from './settings.ts';
import { db } from './db.ts';

const NAME = 'calendar/busy';
const schema = z.array(busySchema).catch([]);

/** Times at which no lane publishes, by when they begin. */
export const readBusy = (): Promise<Busy[]> => readSetting(NAME, schema);

/** Adds busy times; those that are there already are not doubled. @returns how many are new */
export const addBusy = (more: readonly Busy[]): Promise<number> =>
  db.transaction('rw', db.settings, async () => {
    const known = await readBusy();
    const nameOf = ({ title, from, to }: Busy) => `${from} ${to} ${title}`;
    const names = new Set(known.map(nameOf));
    const fresh = more.filter((one) => !names.has(nameOf(one)));
    await saveSetting(
      NAME,
      [...known, ...fresh].sort((a, b) => a.from - b.from)
    );
    return fresh.length;
  });

/** Takes busy times out. @returns what brings them back */
export const removeBusy = (gone: (one: Busy) => boolean): Promise<() => Promise<number>> =>
  db.transaction('rw', db.settings, async () => {
    const known = await readBusy();
    await saveSetting(
      NAME,
      known.filter((one) => !gone(one))
    );
    return () => addBusy(known.filter(gone));
  });
