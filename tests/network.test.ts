import assert from 'node:assert/strict';
import { after, before, test } from 'node:test';
import { TestHosts } from '../hosts/testing.ts';
import { readActor } from '../src/lib/core/feeds/actor.ts';
import { readPage } from '../src/lib/core/feeds/page.ts';
import type { UpdatePayload } from '../src/lib/core/delivery/payload.ts';
import { PlaceError } from '../src/lib/core/model/place.ts';
import { readMessage } from '../src/lib/core/mail/message.ts';
import type { Mailbox } from '../src/lib/core/model/mailbox.ts';
import { answerMessage, fromFragment } from '../src/lib/core/updates/handOff.ts';
import { ByHand } from '../src/lib/places/byHand.ts';
import { MailboxPlace } from '../src/lib/places/mailbox.ts';
import { UpdateNetwork } from '../src/lib/places/network.ts';
import { outside, sendAsUsual, sendStraight } from './outside.ts';

/** The adapter of networks against the rehearsal networks. */
const hosts = new TestHosts();
const control = (what: string, form: Record<string, string>) => hosts.control(what, form);
before(sendStraight);
after(sendAsUsual);
async function linked(path: string, key = 'wrenfold-updates-key'): Promise<UpdateNetwork> {
  const home = `${hosts.origin}/${path}/`;
  const { actor } = readPage(await (await outside(home)).text(), home);
  const facts = readActor(await (await outside(actor)).json(), actor);
  assert.ok(facts);
  return new UpdateNetwork(facts, key, async (name) => files.get(name) ?? null);
}
const KEY = '0b6cbd4e-6a2a-5b5e-9e0e-3c3f6d1a7a11';
const payload = (change: Partial<UpdatePayload> = {}): UpdatePayload => ({
  kind: 'update',
  form: 'text',
  title: 'Retting',
  hasTitle: false,
  text: 'The flax is in.',
  hashtags: ['#Flax'],
  options: [],
  why: '',
  closes: null,
  picture: null,
  button: null,
  clip: null,
  part: null,
  ...change
});
const quiz = payload({
  form: 'quiz',
  text: 'How many days?',
  hashtags: [],
  why: 'It says four.',
  options: [
    { text: 'three', right: false },
    { text: 'four', right: true }
  ],
  closes: new Date(Date.now() + 48 * 3_600_000).toISOString()
});
const refused =
  (kind: string, detail = /./) =>
  (error: unknown) =>
    error instanceof PlaceError && error.problem.kind === kind && detail.test(error.problem.detail);

test('a network tells what it takes and how much is left', async () => {
  const notes = await linked('notes');
  const { limits, allowance } = await notes.fetchLimits();
  assert.equal(limits.text, 500);
  assert.equal(limits.linkWeight, 23);
  await notes.publish(payload(), KEY);
  assert.equal((await notes.fetchLimits()).allowance?.left, (allowance?.left ?? 0) - 1);
  const counts = await notes.tagCounts(['flax', 'wool']);
  assert.deepEqual([...counts.keys()], ['flax', 'wool']);
});

test('an update is published, found by its key, replaced and taken back', async () => {
  const notes = await linked('notes');
  assert.equal(await notes.findByKey(KEY), null);
  const url = await notes.publish(payload(), KEY);
  assert.equal(await notes.findByKey(KEY), url);
  assert.match(await (await outside(url)).text(), /The flax is in\..*#Flax/s);
  await notes.update(url, payload({ text: 'The flax is <b>dry</b>.' }), KEY);
  assert.match(await (await outside(url)).text(), /The flax is &lt;b&gt;dry&lt;\/b&gt;\./);
  await notes.remove(url);
  assert.equal(await notes.findByKey(KEY), null);
  assert.equal((await outside(url)).status, 404);
});

test('what is over a limit is refused in words', async () => {
  const notes = await linked('notes');
  await assert.rejects(
    notes.publish(payload({ text: 'x'.repeat(501) }), KEY),
    refused('refused', /507 characters; 500/)
  );
  // A link counts as 23, however long it is.
  await notes.publish(
    payload({ text: `${'x'.repeat(465)} https://x.example/${'y'.repeat(200)}` }),
    KEY
  );
  await assert.rejects(
    (await linked('pictures')).publish(payload(), KEY),
    refused('refused', /picture is needed/)
  );
  await assert.rejects(notes.publish(quiz, KEY), refused('refused', /no quizzes/));
  await assert.rejects((await linked('pages')).publish(quiz, KEY), refused('refused', /no polls/));
  await assert.rejects(
    (await linked('notes', 'wrong')).publish(payload(), KEY),
    refused('key-refused')
  );
  await control('faults', { overQuota: 'on' });
  await assert.rejects(notes.publish(payload(), KEY), refused('over-quota'));
});

test('a poll that is changed keeps its answers while its options stay', async () => {
  const followers = await linked('followers');
  const url = await followers.publish(quiz, KEY);
  const answers = async () =>
    (await followers.results(KEY))!.votes.reduce((sum, v) => sum + v.count, 0);
  await control('clock', { hours: '20' });
  const before = await answers();
  assert.ok(before > 0);
  await followers.update(url, { ...quiz, text: `${quiz.text} Think first.` }, KEY);
  assert.equal(await answers(), before);
  const options = quiz.options.map((o, i) => (i === 0 ? { ...o, text: `${o.text}, or so` } : o));
  await followers.update(url, { ...quiz, options }, KEY);
  assert.equal(await answers(), 0);
});

test('followers answer a quiz while the clock moves on, until it closes', async () => {
  const followers = await linked('followers');
  await followers.publish(quiz, KEY);
  const countOf = async () => {
    const results = await followers.results(KEY);
    return { ...results!, all: results!.votes.reduce((sum, v) => sum + v.count, 0) };
  };
  assert.equal((await countOf()).all, 0);
  await control('clock', { hours: '12' });
  const early = await countOf();
  await control('clock', { hours: '30' });
  const later = await countOf();
  assert.ok(early.all > 0 && later.all > early.all && !later.isClosed);
  const [three, four] = later.votes;
  assert.ok((four?.count ?? 0) > (three?.count ?? 0));
  await control('clock', { hours: '240' });
  const closed = await countOf();
  assert.ok(closed.isClosed);
  await control('clock', { hours: '240' });
  assert.equal((await countOf()).all, closed.all);
});

test('an actor that names another site for its outbox is not taken', () => {
  const actor = { id: 'https://a.example/actor', type: 'Person', outbox: 'https://b.example/out' };
  assert.equal(readActor(actor, 'https://a.example/actor'), null);
  assert.equal(readActor({ ...actor, outbox: 'javascript:1' }, 'https://a.example/actor'), null);
  const fine = readActor(
    { ...actor, outbox: '/out', name: '<b>Flax</b>' },
    'https://a.example/actor'
  );
  assert.deepEqual([fine?.outbox, fine?.title], ['https://a.example/out', 'Flax']);
});

const files = new Map([
  ['own:picture', new Blob([Buffer.from('a picture')], { type: 'image/png' })],
  ['own:clip', new Blob([Buffer.from('no clip at all')], { type: 'video/webm' })]
]);
const picture = { url: 'own:picture', alt: 'Rows of flax' };

test('a kept picture is sent first, once however often, and then stands with the update', async () => {
  const pictures = await linked('pictures');
  await pictures.prepare(payload({ picture }));
  await pictures.prepare(payload({ picture }));
  const url = await pictures.publish(payload({ picture }), KEY);
  const address = /<img src="([^"]+)"/.exec(await (await outside(url)).text())?.[1] ?? '';
  assert.equal(await (await outside(address)).text(), 'a picture');
  const again = await linked('pictures');
  await again.prepare(payload({ picture }));
  await again.update(url, payload({ picture, text: 'Dry.' }), KEY);
  assert.ok((await (await outside(url)).text()).includes(address));
});

test('files that are not kept any more, not taken or sent without a key are reported', async () => {
  const pictures = await linked('pictures');
  const clip = { url: 'own:clip', alt: 'Rows', seconds: 3, type: 'video/webm' };
  await assert.rejects(
    pictures.prepare(payload({ clip })),
    refused('refused', /at most 90 seconds/)
  );
  const gone = { ...picture, url: 'own:gone' };
  await assert.rejects(pictures.prepare(payload({ picture: gone })), refused('not-found'));
  const pages = await linked('pages');
  await assert.rejects(pages.prepare(payload({ clip })), refused('refused', /not taken here/));
  const keyless = await linked('pictures', 'wrong');
  await assert.rejects(keyless.prepare(payload({ picture })), refused('key-refused', /.?/));
});

test('a part of a thread waits for the part before it, and follows it', async () => {
  const notes = await linked('notes');
  const second = payload({ text: 'And then.', part: { number: 2, of: 2, after: KEY } });
  await assert.rejects(notes.prepare(second), refused('busy'));
  const url = await notes.publish(
    payload({ text: 'First this.', part: { number: 1, of: 2, after: '' } }),
    KEY
  );
  await notes.prepare(second);
  await notes.publish(second, '7f5a3c7a-0b46-5d3a-9a53-1f6f6a5b2c11');
  assert.match(await (await outside(url)).text(), /First this\.[\s\S]*And then\./);
  assert.match(await (await outside(`${hosts.origin}/notes/`)).text(), /It goes on in 1 more/);
});

async function handing(): Promise<{ target: ByHand; mailbox: Mailbox }> {
  const home = `${hosts.origin}/mailbox/`;
  const { description } = readPage(await (await outside(home)).text(), home);
  const about = (await (await outside(description)).json()) as { messages: string };
  const mailbox = {
    url: home,
    name: 'Letterbox',
    address: 'studio@wrenfold.example',
    linked: '',
    messages: about.messages
  };
  const network = { id: 'b', title: 'Board at the Mill Gate', url: `${hosts.origin}/board/` };
  const target = new ByHand(network, mailbox, {
    key: 'wrenfold-mailbox-key',
    secret: 's',
    origin: 'https://twin.example',
    fileOf: async (url) => files.get(url) ?? null,
    now: () => new Date(0)
  });
  return { target, mailbox };
}

test('what is posted by hand goes to the mailbox once, and comes back with its address', async () => {
  const { target, mailbox } = await handing();
  assert.equal(await target.findByKey(KEY), null);
  const url = await target.publish(payload({ picture }), KEY);
  assert.equal(await target.publish(payload({ picture, text: 'Dry now.' }), KEY), url);
  assert.equal(await target.findByKey(KEY), url);
  const page = await (await outside(url)).text();
  assert.match(page, /Dry now\./);
  assert.match(page, /picture\.png \(image\/png\)/);

  const fragment = /hand-off#([\w-]+)/.exec(page)?.[1] ?? '';
  const handOff = await fromFragment(fragment);
  assert.equal(handOff?.text, 'Dry now.');
  assert.deepEqual(await target.answers(KEY), []);
  // Whoever answers needs no key: it is mail.
  const answer = answerMessage(handOff!, `${hosts.origin}/board/77`, new Date(9));
  await new MailboxPlace(mailbox, '').deliver(answer);
  const [raw] = await target.answers(KEY);
  assert.match((await readMessage(raw ?? '')).text, /\/board\/77/);
  await assert.rejects(new MailboxPlace(mailbox, 'wrong').find('x'), refused('key-refused'));

  await target.remove(url, KEY);
  assert.equal(await target.findByKey(KEY), null);
});

test('a network tells until when a key is good, and refuses one that is not', async () => {
  const ends = await (await linked('followers')).keyEnds();
  assert.ok(Date.parse(ends ?? '') > Date.now());
  assert.equal(await (await linked('followers', '')).keyEnds(), null);
  await control('faults', { keyExpired: 'on' });
  await assert.rejects(
    (await linked('followers')).keyEnds(),
    (error) => error instanceof PlaceError && error.problem.kind === 'key-refused'
  );
});
