import { z } from 'zod';
import { addressFromInput, canonicalAddress } from '$lib/core/feeds/address.ts';
import { clearEverything, EVERYTHING, forgetCleared } from '$lib/data/everything.ts';
import { allItems } from '$lib/data/items.ts';
import { allNetworks } from '$lib/data/networks.ts';
import { forgetBefore, note } from '$lib/data/journal.ts';
import { setAside } from '$lib/data/decisions.ts';
import { forgetUnusedFrames } from '$lib/data/media.ts';
import { forgetOldSpeech } from '$lib/data/speech.ts';
import { readMailbox } from '$lib/data/mailbox.ts';
import { allPlaces, getPlace } from '$lib/data/places.ts';
import { readSetting, saveSetting } from '$lib/data/settings.ts';
import { findPlace, setKey, connectPlace } from './connect.ts';
import { forgetDownload } from './archive/forgetDownload.ts';
import { forgetOldParts } from './forgetParts.ts';
import { deliverPending } from '$lib/delivery/deliverEntry.ts';
import { tellOrigins } from '$lib/places/tellOrigins.ts';
import { readPlaces } from './read.ts';
import { runTask } from './tasks.svelte.ts';

/** The demo world to begin with, when this server runs beside the rehearsal hosts. */
export const demoSchema = z.object({
  places: z.array(z.object({ address: z.string(), key: z.string().default('') })),
  networks: z.array(z.object({ address: z.string(), key: z.string() })).default([]),
  mailbox: z.object({ address: z.string(), key: z.string() }).optional(),
  byHand: z.array(z.object({ title: z.string(), url: z.string() })).default([]),
  /** Addresses of items that the demo's user set aside. */
  setAside: z.array(z.string())
});
export type Demo = z.infer<typeof demoSchema>;

/** The key that the demo world has for one of its places, or empty. */
export function demoKeyOf(demo: unknown, url: string): string {
  const { data } = demoSchema.safeParse(demo);
  const known = [...(data?.places ?? []), ...(data?.networks ?? [])];
  return known.find(({ address }) => url.startsWith(address))?.key ?? '';
}

/** The demo world being opened in this tab; a start anew stops it. */
let opening: AbortController | null = null;

const startedSchema = z.enum(['demo', 'empty']).optional();

const LOADED_ANEW = 'loaded-anew';

/** Begins: links the demo world on a first visit where there is one, then takes up what was left. */
export async function start(demo: Demo | null): Promise<void> {
  await navigator.locks.request('start', async () => {
    if (!demo || (await readSetting('started', startedSchema))) return;
    if ((await allPlaces()).length > 0) return;
    opening = new AbortController();
    await runTask(
      'Opening the demo world',
      async (signal, report) => {
        for (const { address, key } of demo.places) {
          report(address);
          const place = await connectPlace(
            await findPlace(addressFromInput(address) ?? address, signal)
          );
          if (key) await setKey(place, key, signal);
        }
        await readPlaces(undefined, false);
        const aside = new Set(demo.setAside.map(canonicalAddress));
        const items = (await allItems()).filter((i) => aside.has(canonicalAddress(i.url)));
        for (const item of items) await setAside(item.id, new Date().toISOString());
        for (const { address, key } of demo.networks) {
          report(address);
          const { findNetwork, connectNetwork, setNetworkKey } = await import('./networks.ts');
          await setNetworkKey(
            await connectNetwork(await findNetwork(address, signal), signal),
            key,
            signal
          );
        }
        if (demo.mailbox) {
          const { findMailbox, connectMailbox } = await import('./mailbox.ts');
          await connectMailbox(await findMailbox(demo.mailbox.address, signal), demo.mailbox.key);
        }
        for (const place of demo.byHand) {
          const { addByHand } = await import('./networks.ts');
          await addByHand({
            ...place,
            text: 600,
            picture: 'optional',
            hashtags: 0,
            isUsual: false
          });
        }
        signal.throwIfAborted();
        await saveSetting('started', 'demo');
      },
      opening.signal
    );
  });
  if (!(await sendOrigins()) && !sessionStorage.getItem(LOADED_ANEW)) {
    // A server that began anew knows no origins. Once: a browser that keeps no cookies would go round.
    sessionStorage.setItem(LOADED_ANEW, 'yes');
    return location.reload();
  }
  sessionStorage.removeItem(LOADED_ANEW);
  await readConnected();
  await deliverPending();
  await forgetOldSpeech(new Date());
  await forgetUnusedFrames();
  await forgetOldParts();
  await forgetDownload(Date.now());
  await forgetCleared(Date.now());
  const days = await readSetting('journalDays', z.number().catch(0));
  if (days > 0) await forgetBefore(new Date(Date.now() - days * 86_400_000).toISOString());
}

/** Reads a place that was connected just before the page was loaded anew. */
async function readConnected(): Promise<void> {
  const id = await readSetting('toRead', z.string().optional());
  if (!id) return;
  const place = await getPlace(id);
  await saveSetting('toRead', undefined);
  if (place) await readPlaces(place, false);
}

/** Forgets everything this browser keeps and begins without places. Nothing at the places changes. */
export async function startEmpty(): Promise<void> {
  // Now: a page loaded in between would take it for a first visit and begin with the demo world.
  await clearAll('empty');
  await sendOrigins();
}

/** Forgets everything and opens the demo world once more. */
export async function startDemo(demo: Demo): Promise<void> {
  await clearAll();
  await start(demo);
}

/** What is being opened is stopped first, or it would go on filling what was cleared. */
async function clearAll(started?: 'empty'): Promise<void> {
  opening?.abort();
  await navigator.locks.request('start', () => clearEverything(started));
  await note({ what: 'started-over', trash: EVERYTHING });
}

/**
 * Tells our server which origins are linked.
 * @returns whether the page's policy knew them already; if not, it is to be loaded anew
 */
export async function sendOrigins(): Promise<boolean> {
  const mailbox = await readMailbox();
  return tellOrigins([
    ...(await allPlaces()).flatMap((place) => place.origins),
    ...(await allNetworks()).flatMap((network) => network.origins),
    ...(mailbox ? [new URL(mailbox.messages).origin] : [])
  ]);
}
