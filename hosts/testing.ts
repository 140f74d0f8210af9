import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, before, beforeEach } from 'node:test';
import { startHosts, type Hosts } from './serve.ts';

/** Taken before a test may put something else in its place. */
const call = globalThis.fetch;

/** Hosts that stand while the tests of a file run; their world is new before each test. */
export class TestHosts {
  #hosts: Hosts | null = null;
  #folder = '';

  constructor() {
    before(async () => {
      this.#folder = await mkdtemp(join(tmpdir(), 'world-'));
      this.#hosts = await startHosts({ port: 0, folder: this.#folder });
    });
    beforeEach(async () => {
      await this.control('reset');
      await this.control('faults');
    });
    after(async () => {
      await this.#hosts?.close();
      await rm(this.#folder, { recursive: true });
    });
  }

  get origin(): string {
    if (!this.#hosts) throw new Error('The hosts do not stand yet.');
    return this.#hosts.origin;
  }

  /** Ends them and begins them again with the same world, at the same address. */
  async restart(): Promise<void> {
    const port = Number(new URL(this.origin).port);
    await this.#hosts?.close();
    this.#hosts = await startHosts({ port, folder: this.#folder });
  }

  /** Does what a person does on the control page. */
  async control(what: string, form: Record<string, string> = {}): Promise<void> {
    await call(`${this.origin}/control/${what}`, {
      method: 'POST',
      body: new URLSearchParams(form),
      redirect: 'manual'
    });
  }
}
