import type { TestHosts } from '../hosts/testing.ts';
import type { Item } from '../src/lib/core/model/item.ts';
import type { Network } from '../src/lib/core/model/network.ts';
import type { Place } from '../src/lib/core/model/place.ts';
import { db } from '../src/lib/data/db.ts';
import { connectPlace, findPlace, setKey } from '../src/lib/work/connect.ts';
import { connectNetwork, findNetwork, setNetworkKey } from '../src/lib/work/networks.ts';
import { readPlaces } from '../src/lib/work/read.ts';

const signal = new AbortController().signal;

/** Connects the channel and the blog of the rehearsal hosts, the blog with its key, and reads both. */
export async function connectBoth({ origin }: TestHosts): Promise<{ channel: Place; blog: Place }> {
  const channel = await connectPlace(await findPlace(`${origin}/channel/`, signal));
  const blog = await connectPlace(await findPlace(`${origin}/blog/`, signal));
  await setKey(blog, 'wrenfold-notebook-key', signal);
  await readPlaces();
  return { channel, blog };
}

/** Connects a network of the rehearsal hosts with its key. */
export async function connectWithKey({ origin }: TestHosts, name: string): Promise<Network> {
  const network = await connectNetwork(await findNetwork(`${origin}/${name}/`, signal), signal);
  await setNetworkKey(network, 'wrenfold-updates-key', signal);
  return (await db.networks.get(network.id))!;
}

export async function itemCalled(title: string): Promise<Item> {
  const item = await db.items.filter((i) => i.title === title).first();
  if (!item) throw new Error(`There is no “${title}”.`);
  return item;
}
