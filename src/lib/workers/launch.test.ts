import '../../../tests/browserOf.ts';
import assert from 'node:assert/strict';
import { after, test } from 'node:test';
import { PlaceError } from '../core/model/place.ts';
import { launch } from './launch.ts';
import type { NarrationApi } from './narrationApi.ts';

// Ports alone do not keep the process from ending.
const awake = setInterval(() => {}, 1_000);
after(() => clearInterval(awake));

test('a worker is started once, when it is first used, and anew after it was ended', async () => {
  let started = 0;
  let ended = 0;
  const worker = launch<NarrationApi>(() => {
    started++;
    const made = new Worker(new URL('./narration.worker.ts', import.meta.url), { name: 'test' });
    return Object.assign(made, { terminate: () => ended++ });
  });
  assert.equal(started, 0);
  worker.end();
  assert.equal(ended, 0);
  assert.equal(await worker().languageOf('Wind the warp with even hands and tie the cross.'), 'en');
  assert.equal(await worker().languageOf('Die Kette wird mit ruhigen Händen geschärt.'), 'de');
  assert.equal(started, 1);
  worker.end();
  worker.end();
  assert.equal(ended, 1);
  assert.equal(await worker().languageOf('Beat softly after every pick of the weft.'), 'en');
  assert.equal(started, 2);
});

test('a worker that does not come to itself is ended, its calls fail, and another one is started', async () => {
  let ended = 0;
  let isHung = true;
  const worker = launch<NarrationApi>(
    () => {
      const made = new Worker(new URL('./narration.worker.ts', import.meta.url), { name: 'test' });
      const hung = isHung && { postMessage() {} };
      return Object.assign(made, { terminate: () => ended++ }, hung);
    },
    { lookEvery: 10, patience: 40 }
  );
  const asked = [worker().languageOf('One.'), worker().languageOf('Two.')];
  for (const call of asked)
    await assert.rejects(
      () => call,
      (error) => error instanceof PlaceError && error.problem.kind === 'too-heavy'
    );
  assert.equal(ended, 1);
  isHung = false;
  assert.equal(await worker().languageOf('Beat softly after every pick of the weft.'), 'en');
  // It is looked at while it works, and left alone while it answers.
  await new Promise((done) => setTimeout(done, 150));
  assert.equal(ended, 1);
});

test('a worker that is ended while it works fails its calls, rather than leave them open for ever', async () => {
  const worker = launch<NarrationApi>(() => {
    const made = new Worker(new URL('./narration.worker.ts', import.meta.url), { name: 'test' });
    return Object.assign(made, { terminate() {}, postMessage() {} });
  });
  assert.equal(worker.isBusy(), false);
  const remote = worker();
  const asked = remote.languageOf('One.');
  assert.equal(worker.isBusy(), true);
  worker.end();
  // Nor does one that comes later, of somebody who held on to it.
  for (const call of [asked, remote.languageOf('Two.')])
    await assert.rejects(
      () => call,
      (error) => error instanceof PlaceError && error.problem.kind === 'stopped'
    );
  assert.equal(worker.isBusy(), false);
});

test('a worker whose program cannot be loaded says so at once, and is loaded anew with the next call', async () => {
  const listening: (() => void)[] = [];
  let isOut = true;
  const worker = launch<NarrationApi>(() => {
    const made = new Worker(new URL('./narration.worker.ts', import.meta.url), { name: 'test' });
    const listen = made.addEventListener.bind(made);
    return Object.assign(made, {
      terminate() {},
      addEventListener(...[type, listener]: Parameters<Worker['addEventListener']>) {
        if (type === 'error') listening.push(listener as () => void);
        else listen(type, listener);
      },
      ...(isOut && { postMessage() {} })
    });
  });
  const asked = worker().languageOf('One.');
  listening[0]?.();
  await assert.rejects(
    () => asked,
    (error) => error instanceof PlaceError && /could not be loaded/.test(error.problem.detail)
  );
  isOut = false;
  assert.equal(await worker().languageOf('Beat softly after every pick of the weft.'), 'en');
  // What goes wrong within a call once it runs is told by that call.
  listening[1]?.();
  assert.equal(await worker().languageOf('Die Kette wird mit ruhigen Händen geschärt.'), 'de');
  assert.equal(listening.length, 2);
});
