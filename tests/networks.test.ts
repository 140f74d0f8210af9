import './browserOf.ts';
import assert from 'node:assert/strict';
import { after, before, beforeEach, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { PlaceError } from '../src/lib/core/model/place.ts';
import type { Network } from '../src/lib/core/model/network.ts';
import { anItem } from '../src/lib/core/testing.ts';
import { newUpdateDraft } from '../src/lib/core/updates/draft.ts';
import { versionFor, type Version } from '../src/lib/core/updates/version.ts';
import { db } from '../src/lib/data/db.ts';
import { readKey } from '../src/lib/data/keys.ts';
import { MAILBOX_ID, readMailbox } from '../src/lib/data/mailbox.ts';
import { updateKey } from '../src/lib/make/update.ts';
import { connectPlace, findPlace } from '../src/lib/work/connect.ts';
import { connectMailbox, disconnectMailbox, findMailbox } from '../src/lib/work/mailbox.ts';
import {
  addByHand,
  checkNetwork,
  connectNetwork,
  disconnectNetwork,
  findNetwork,
  forgetNetworkKey,
  setNetworkKey
} from '../src/lib/work/networks.ts';
import { connectPlaylist, findPlaylists } from '../src/lib/work/playlists.ts';
import { approveUpdates, publishUpdates, undoUpdate } from '../src/lib/work/publishUpdates.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

const hosts = new TestHosts();
const signal = new AbortController().signal;
before(sendStraight);
after(sendAsUsual);
beforeEach(async () => {
  await Promise.all(db.tables.map((table) => table.clear()));
});

const isProblem = (kind: string) => (error: unknown) =>
  error instanceof PlaceError && error.problem.kind === kind;
const connect = async (name: string): Promise<Network> =>
  connectNetwork(await findNetwork(`${hosts.origin}/${name}/`, signal), signal);
const stored = (network: Network) => db.networks.get(network.id);

const item = anItem({ id: 'p', kind: 'post', title: 'Madder on wool' });
const text = 'Madder gives red. It likes hard water. Simmer it slowly, or the red turns brown.';
const now = new Date().toISOString();
function versionOf(network: Network): Version {
  const source = {
    title: item.title,
    kind: 'post' as const,
    link: item.url,
    language: 'en',
    blocks: [{ kind: 'paragraph' as const, text }]
  };
  const { id, limits } = network;
  const place = { id, limits, link: item.url, hashtags: [], picture: null };
  return versionFor(source, newUpdateDraft('p', now), place, now);
}
const entryOf = (network: Network) => db.outbox.get(updateKey(item, 'text', network));
async function until(is: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 200 && !(await is()); i++) await new Promise((done) => setTimeout(done, 20));
  assert.ok(await is());
}

test('a network is found by its page, with what it takes', async () => {
  const network = await connect('notes');
  assert.equal(network.hasKey, false);
  assert.ok(network.limits.text > 0);
  assert.equal((await stored(network))?.title, network.title);
  await assert.rejects(findNetwork(`${hosts.origin}/blog/`, signal), isProblem('no-feed-found'));
});

test('a key of a network is tried before it is stored', async () => {
  const network = await connect('notes');
  await assert.rejects(setNetworkKey(network, 'wrong', signal), isProblem('key-refused'));
  assert.deepEqual([(await stored(network))?.problem, await readKey(network.id)], [null, '']);
  await setNetworkKey(network, ' wrenfold-updates-key ', signal);
  assert.equal(await readKey(network.id), 'wrenfold-updates-key');
  assert.equal((await stored(network))?.hasKey, true);
  assert.ok((await stored(network))?.keyEnds);
  await forgetNetworkKey(network);
  assert.deepEqual([(await stored(network))?.hasKey, await readKey(network.id)], [false, '']);
});

test('what is wrong with a network is kept until it is checked again', async () => {
  const network = await connect('notes');
  await setNetworkKey(network, 'wrenfold-updates-key', signal);
  await hosts.control('faults', { failOneIn: '1' });
  await assert.rejects(checkNetwork(network, signal), isProblem('server-error'));
  assert.equal((await stored(network))?.problem?.kind, 'server-error');
  await hosts.control('faults');
  await checkNetwork(network, signal);
  assert.equal((await stored(network))?.problem, null);
  await disconnectNetwork(network);
  await checkNetwork(network, signal);
  assert.equal(await stored(network), undefined);
});

test('an update goes to each network once, and is deleted where it is taken back', async () => {
  const networks = [await connect('notes'), await connect('followers')];
  for (const network of networks) await setNetworkKey(network, 'wrenfold-updates-key', signal);
  const versions = networks.map((network) => ({ network, version: versionOf(network) }));
  await publishUpdates(item, versions, Date.now());
  await publishUpdates(item, versions, Date.now());
  for (const network of networks)
    await until(async () => (await entryOf(network))?.state === 'published');
  const shown = async (network: Network) =>
    ((await (await outside(network.url)).text()).match(/Madder gives red/g) ?? []).length;
  for (const network of networks) assert.equal(await shown(network), 1);
  const [notes, followers] = networks as [Network, Network];
  await undoUpdate((await entryOf(notes))!);
  assert.equal((await entryOf(notes))?.state, 'removed');
  assert.deepEqual([await shown(notes), await shown(followers)], [0, 1]);
});

test('an update for review is sent when it is approved, not before', async () => {
  const network = await connect('notes');
  await setNetworkKey(network, 'wrenfold-updates-key', signal);
  await publishUpdates(item, [{ network, version: versionOf(network) }], Date.now(), true);
  const waiting = await entryOf(network);
  assert.equal(waiting?.state, 'in-review');
  await approveUpdates([waiting]);
  assert.equal((await entryOf(network))?.state, 'published');
});

test('a place for posting by hand needs an address, and no key', async () => {
  const fields = { title: 'Market board', isUsual: true, text: 500, hashtags: 0 };
  const picture = 'optional' as const;
  await assert.rejects(
    addByHand({ ...fields, picture, url: 'no address' }),
    isProblem('bad-address')
  );
  await addByHand({ ...fields, picture, url: 'https://market.example/board' });
  const [network] = await db.networks.toArray();
  assert.deepEqual([network?.isByHand, network?.hasKey, network?.limits.text], [true, true, 500]);
});

test('a mailbox is found by its page, and taken out with its key', async () => {
  const mailbox = await findMailbox(`${hosts.origin}/mailbox/`, signal);
  await connectMailbox(mailbox, 'wrenfold-mailbox-key ');
  assert.equal((await readMailbox())?.address, mailbox.address);
  assert.equal(await readKey(MAILBOX_ID), 'wrenfold-mailbox-key');
  await disconnectMailbox(mailbox);
  assert.deepEqual([await readMailbox(), await readKey(MAILBOX_ID)], [null, '']);
  await assert.rejects(findMailbox(`${hosts.origin}/blog/`, signal), isProblem('refused'));
});

test('playlists are found at their channel, and read by their page; of others none is taken', async () => {
  const channel = await connectPlace(await findPlace(`${hosts.origin}/channel/`, signal));
  const found = await findPlaylists(channel);
  assert.ok(found.length > 0);
  const page = found[0]!.url.replace(/\/feed\.xml$/, '');
  const read = await connectPlaylist(channel, page);
  assert.equal(read.url, found[0]!.url);
  assert.ok(read.members.length > 0);
  for (const path of ['/blog/', '/channel/feed.xml'])
    await assert.rejects(connectPlaylist(channel, hosts.origin + path), isProblem('no-feed-found'));
});
