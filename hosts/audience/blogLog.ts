import type { World } from '../context.ts';
import { NETWORKS } from '../network/kinds.ts';
import type { Post } from '../world/world.ts';
import { appeal, attention, interest } from './model.ts';
import { poisson, randomOf } from './random.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** How the owner is told apart in the log. */
export const OWN_ADDRESS = '203.0.113.7';
/** Days that the log of the blog goes back. */
export const LOG_DAYS = 90;

const BROWSERS = [
  'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
  'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:139.0) Gecko/20100101 Firefox/139.0',
  'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Safari/537.36',
  'Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Mobile Safari/537.36',
  'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Safari/605.1.15'
];
const CRAWLERS = [
  'Mozilla/5.0 (compatible; HeddleCrawler/2.1; +https://heddle.example/bot.html)',
  'ShuttleSpider/0.9 (+https://shuttle.example/about)',
  'python-requests/2.32.3'
];
const FEED_READER = 'SkeinReader/3.2 (feed fetcher; 41 subscribers)';
const SITES = ['https://find.example/', 'https://weavers.example/forum/threads/412'];

/** What the log really holds: views of posts, by who made them. */
export interface LogTruth {
  visits: number;
  again: number;
  bots: number;
  hiddenBots: number;
  own: number;
  prefetched: number;
  /** Visits by post and source. */
  bySource: Record<string, Record<string, number>>;
  /** Visits by weekday (Monday first) and hour, UTC. */
  hours: number[][];
}

interface Request {
  at: number;
  address: string;
  target: string;
  status: number;
  referrer: string;
  agent: string;
  isPrefetch: boolean;
}

/** Visits to a post in the first day, where as many are there as on the mean. */
const FIRST_DAY_VISITS = 60;
/** What a link in an update brings in its first hours. */
const FIRST_HOUR_CLICKS = 2.2;

/**
 * The access log of the blog for some hours, in the Combined Log Format with a field for what is fetched in advance, and
 * what is true of it. The same hours always have the same lines.
 */
export function blogLog(
  world: World,
  from: number,
  to: number
): { lines: string[]; truth: LogTruth } {
  const truth: LogTruth = {
    visits: 0,
    again: 0,
    bots: 0,
    hiddenBots: 0,
    own: 0,
    prefetched: 0,
    bySource: {},
    hours: Array.from({ length: 7 }, () => new Array<number>(24).fill(0))
  };
  const requests: Request[] = [];
  const posts = world.posts().filter((post) => world.isPublic(post));
  for (let hour = Math.floor(from / HOUR) * HOUR; hour < to; hour += HOUR)
    new LogHour(world, posts, hour, requests, truth).fill();
  const lines = requests
    .filter(({ at }) => at >= from && at < to)
    .sort((a, b) => a.at - b.at)
    .map(lineOf);
  return { lines, truth };
}

/** Who asks for what within one hour. */
class LogHour {
  readonly #next: () => number;

  constructor(
    private readonly world: World,
    private readonly posts: readonly Post[],
    private readonly hour: number,
    private readonly requests: Request[],
    private readonly truth: LogTruth
  ) {
    this.#next = randomOf(`log ${hour}`);
  }

  fill(): void {
    const there = attention(this.hour);
    const out = this.posts.filter((post) => this.world.publishedAt(post) <= this.hour);
    for (const post of out) {
      const days = (this.hour - this.world.publishedAt(post)) / DAY;
      const mean = (FIRST_DAY_VISITS / 24) * appeal(post.slug) * interest(days) * there;
      for (let n = poisson(mean, this.#next); n > 0; n--) this.#visit(post, this.#source(post));
    }
    this.#clicks(there);
    if (out.length === 0) return;
    this.#bots(out);
    for (let n = poisson(0.25, this.#next); n > 0; n--) this.#own(this.#one(out));
  }

  #one<T>(list: readonly T[]): T {
    return list[Math.floor(this.#next() * list.length)]!;
  }

  #moment(): number {
    return this.hour + Math.floor(this.#next() * (HOUR - 120_000));
  }

  #address(): string {
    const part = () => Math.floor(this.#next() * 65_536).toString(16);
    return `2001:db8:${part()}:${part()}::${part()}`;
  }

  #ask(request: Partial<Request> & Pick<Request, 'at' | 'address' | 'target' | 'agent'>): void {
    this.requests.push({ status: 200, referrer: '', isPrefetch: false, ...request });
  }

  /** Where somebody who finds a post by himself comes from. */
  #source(post: Post): { referrer: string; name: string } {
    const [video] = embeddedIn(post);
    const chance = this.#next();
    if (video && chance < 0.3)
      return { referrer: `${this.world.channelUrl}watch/${video}`, name: 'video' };
    if (chance < 0.62) return { referrer: this.#one(SITES), name: 'site' };
    return { referrer: '', name: 'direct' };
  }

  #visit(post: Post, source: { referrer: string; name: string; query?: string }): void {
    const at = this.#moment();
    const address = this.#address();
    const agent = this.#one(BROWSERS);
    const target = pathOf(post);
    const style = () =>
      this.#ask({ at: at + 300, address, agent, target: '/blog/style.css', referrer: target });
    this.#ask({
      at,
      address,
      agent,
      target: target + (source.query ?? ''),
      referrer: source.referrer
    });
    style();
    this.#count(post, source.name, at);
    if (this.#next() < 0.12) {
      this.#ask({ at: at + 60_000, address, agent, target, referrer: '' });
      this.truth.again++;
    }
    // The browser fetches the next post in advance, and most never look at it.
    if (this.#next() < 0.1) {
      this.#ask({
        at: at + 900,
        address,
        agent,
        target: pathOf(this.#one(this.posts)),
        isPrefetch: true
      });
      this.truth.prefetched++;
    }
  }

  #count(post: Post, source: string, at: number): void {
    this.truth.visits++;
    const bySource = (this.truth.bySource[post.slug] ??= {});
    bySource[source] = (bySource[source] ?? 0) + 1;
    const weekday = (new Date(at).getUTCDay() + 6) % 7;
    this.truth.hours[weekday]![new Date(at).getUTCHours()]!++;
  }

  /** Links in updates bring people for a day or two. */
  #clicks(there: number): void {
    for (const update of this.world.store.state.updates) {
      const hours = (this.hour - update.created) / HOUR;
      if (hours < 0 || hours > 72) continue;
      for (const link of linksTo(this.world.blogUrl, [update.text, update.button?.url ?? ''])) {
        const post = this.posts.find((one) => link.pathname === `/blog/posts/${one.slug}`);
        if (!post) continue;
        const mean = FIRST_HOUR_CLICKS * appeal(update.id) * there * Math.exp(-hours / 9);
        const network = NETWORKS.find(({ path }) => path === update.network);
        const referrer = network ? `${this.world.origin}/${network.path}/` : '';
        for (let n = poisson(mean, this.#next); n > 0; n--)
          this.#visit(post, { referrer, name: update.id, query: link.search });
      }
    }
  }

  #bots(out: readonly Post[]): void {
    for (let n = poisson(1.5, this.#next); n > 0; n--) {
      const agent = this.#one(CRAWLERS);
      this.#ask({
        at: this.#moment(),
        address: '192.0.2.66',
        agent,
        target: pathOf(this.#one(out))
      });
      this.truth.bots++;
    }
    this.#ask({
      at: this.#moment(),
      address: '192.0.2.9',
      agent: FEED_READER,
      target: '/blog/feed.xml'
    });
    if (this.#next() < 0.2)
      this.#ask({
        at: this.#moment(),
        address: this.#address(),
        agent: this.#one(BROWSERS),
        target: '/admin/login.php',
        status: 404
      });
    // A program that calls itself a browser, and reads faster than anybody.
    if (this.#next() < 0.08) {
      const [start, address, agent] = [this.#moment(), this.#address(), this.#one(BROWSERS)];
      const pages = [...new Set(Array.from({ length: 8 }, () => this.#one(out)))];
      if (pages.length < 4) return;
      for (const [i, post] of pages.entries())
        this.#ask({ at: start + i * 1200, address, agent, target: pathOf(post) });
      this.truth.hiddenBots += pages.length;
    }
  }

  #own(post: Post): void {
    const at = this.#moment();
    const agent = BROWSERS[0]!;
    this.#ask({ at, address: OWN_ADDRESS, agent, target: pathOf(post) });
    this.#ask({ at: at + 200, address: OWN_ADDRESS, agent, target: '/blog/style.css' });
    this.truth.own++;
  }
}

const pathOf = (post: Post): string => `/blog/posts/${post.slug}`;

function embeddedIn(post: Post): string[] {
  const html = JSON.stringify(post.properties.content ?? []);
  return [...html.matchAll(/\/channel\/(?:embed|watch)\/([\w-]+)/g)].map((m) => m[1] ?? '');
}

function linksTo(base: string, texts: readonly string[]): URL[] {
  const words = texts.flatMap((text) => text.split(/\s+/));
  return words.filter((w) => w.startsWith(base) && URL.canParse(w)).map((w) => new URL(w));
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
function lineOf({ at, address, target, status, referrer, agent, isPrefetch }: Request): string {
  const date = new Date(at);
  const two = (n: number) => String(n).padStart(2, '0');
  const day = `${two(date.getUTCDate())}/${MONTHS[date.getUTCMonth()]}/${date.getUTCFullYear()}`;
  const time = [date.getUTCHours(), date.getUTCMinutes(), date.getUTCSeconds()].map(two).join(':');
  const bytes = 2_000 + ((target.length * 97) % 9_000);
  return `${address} - - [${day}:${time} +0000] "GET ${target} HTTP/1.1" ${status} ${bytes} "${referrer || '-'}" "${agent}" "${isPrefetch ? 'prefetch' : '-'}"`;
}
