import { isbot } from 'isbot';
import { canonicalAddress } from '../../feeds/address.ts';
import { localHours, type Day } from '../day.ts';
import { visitSource, type OwnPages, type VisitSource } from '../visitSource.ts';
import { logLineReader, senderOf, type LogLine, type LogSender } from './logLine.ts';
import { ownVisitFinder, type OwnVisits } from './ownVisits.ts';
import type { LogSpan } from './span.ts';

export interface LogQuestion {
  /** Addresses of the pages that are counted. */
  pages: readonly string[];
  /** Address of the blog: targets stand beneath its origin. */
  blogUrl: string;
  own: OwnPages;
  ownVisits: OwnVisits;
  /** IANA name of the time zone that days are of. */
  zone: string;
  /** What earlier logs of this blog told already. */
  spans: readonly LogSpan[];
}

/** What was found in a log, and what was left out of it. Nothing of who was there. */
export interface LogCounts {
  lines: number;
  /** Requests. */
  unreadable: number;
  /** Of times that an earlier log told. */
  known: number;
  /** Of anything but the pages that are counted. */
  elsewhere: number;
  /** Refused, moved or not found. */
  failed: number;
  prefetched: number;
  /** Views of pages by programs that say what they are, and by those that only behave so. */
  bots: number;
  hiddenBots: number;
  own: number;
  /** Views of a page again within one visit. */
  again: number;
  visits: number;
}

export interface LogFindings {
  counts: LogCounts;
  span: LogSpan | null;
  /** By page (as its place in the question), source and local day. */
  visits: { page: number; source: VisitSource; day: Day; count: number }[];
  /** By day and hour, both in UTC. */
  hours: { day: Day; hours: number[] }[];
}

const MINUTE = 60_000;
const DAY = 86_400_000;
/** Without a request for so long, a visit is over: the trade's usual half hour. */
const OVER_AFTER = 30 * MINUTE;
const SWEEP_EVERY = 5 * MINUTE;
/** Visitors who are followed at once. */
const MOST_AT_ONCE = 200_000;
/** Lines are as long as servers let requests be; what is longer is no log. */
const LONGEST_LINE = 64 * 1024;
/** Addresses whose page is remembered. */
const MOST_KNOWN = 50_000;

const ASSET = /\.(?:css|js|mjs|png|jpe?g|webp|avif|gif|svg|ico|woff2?|ttf|webmanifest)(?:\?|$)/i;

/** Pages a program fetches in one go, faster than anybody reads. */
const HASTY_PAGES = 4;
const HASTY_GAP = 3_000;
/** Pages that somebody opens without the pictures and styles that belong to them. */
const BARE_PAGES = 3;

interface Visit {
  first: number;
  last: number;
  isOwn: boolean;
  asksLikeBot: boolean;
  assets: number;
  pages: number[];
  times: number[];
  sources: VisitSource[];
  views: number;
}

/**
 * Counts visits to pages in the log of a web server, read piece by piece. Memory grows with who is there within half an
 * hour, not with the log. Times need to be in order, as logs are, give or take a minute.
 */
export class LogReader {
  readonly #read = logLineReader();
  readonly #counts: LogCounts = {
    lines: 0,
    unreadable: 0,
    known: 0,
    elsewhere: 0,
    failed: 0,
    prefetched: 0,
    bots: 0,
    hiddenBots: 0,
    own: 0,
    again: 0,
    visits: 0
  };
  readonly #pageOf: (target: string) => number;
  readonly #isBot = remembered((agent: string) => agent === '' || isbot(agent), 5_000);
  readonly #sourceOf: (query: string, referrer: string) => VisitSource;
  readonly #localHour: ReturnType<typeof localHours>;
  readonly #own: ReturnType<typeof ownVisitFinder>;
  readonly #spans: LogSpan[];
  readonly #open = new Map<string, Visit>();
  /** Addresses of those who are there, and of some who went. */
  readonly #around = new Set<string>();
  /** Visitors with a mark, who are known again without it. */
  readonly #marked = new Set<string>();
  readonly #visits = new Map<number, Map<VisitSource, Map<Day, number>>>();
  readonly #hours = new Map<Day, number[]>();
  #span: LogSpan | null = null;
  /** Lines of the last second of an earlier log, which this one begins before. */
  #repeated = 0;
  #rest = '';
  #isTooLong = false;
  #swept = 0;
  /** Visits of two pages or more, and those of them that fetched what pages are made of. */
  #several = 0;
  #dressed = 0;

  constructor(question: LogQuestion) {
    const { pages, blogUrl, own, zone, spans } = question;
    this.#pageOf = pageFinder(pages, blogUrl);
    const sources = remembered((both: string) => {
      const cut = both.indexOf('\n');
      return visitSource(both.slice(0, cut), both.slice(cut + 1), own);
    }, MOST_KNOWN);
    this.#sourceOf = (query, referrer) =>
      !query && !referrer ? 'direct' : sources(`${query}\n${referrer}`);
    this.#localHour = localHours(zone);
    this.#own = ownVisitFinder(question.ownVisits);
    this.#spans = [...spans];
  }

  /** Reads on: a piece of the log as it comes, which may end within a line. */
  add(text: string): void {
    const piece = this.#rest + text;
    let from = 0;
    for (;;) {
      const end = piece.indexOf('\n', from);
      if (end < 0) break;
      if (this.#isTooLong) this.#isTooLong = false;
      else this.#line(piece.slice(from, end));
      from = end + 1;
    }
    this.#rest = piece.slice(from);
    if (this.#rest.length <= LONGEST_LINE) return;
    this.#rest = '';
    if (!this.#isTooLong) this.#passOver('unreadable');
    this.#isTooLong = true;
  }

  /** Ends the log, and every visit. */
  finish(): LogFindings {
    if (this.#rest.trim()) this.#line(this.#rest);
    this.#rest = '';
    for (const visit of this.#open.values()) this.#close(visit);
    this.#open.clear();
    const visits = [...this.#visits].flatMap(([page, bySource]) =>
      [...bySource].flatMap(([source, byDay]) =>
        [...byDay].map(([day, count]) => ({ page, source, day, count }))
      )
    );
    const hours = [...this.#hours].map(([day, counts]) => ({ day, hours: counts }));
    return { counts: { ...this.#counts }, span: this.#span, visits, hours };
  }

  #passOver(why: 'unreadable'): void {
    this.#counts.lines++;
    this.#counts[why]++;
  }

  #line(text: string): void {
    const line = text.endsWith('\r') ? text.slice(0, -1) : text;
    // Logs of some servers begin with lines that say what is in them.
    if (line === '' || line.startsWith('#')) return;
    this.#counts.lines++;
    const request = this.#read(line);
    if (!request) {
      this.#counts.unreadable++;
      return;
    }
    const isKnown = this.#isKnown(request.at);
    this.#noteTime(request.at);
    if (isKnown) this.#counts.known++;
    else this.#request(request);
  }

  /** Whether an earlier log told of this moment. */
  #isKnown(at: number): boolean {
    for (const span of this.#spans) {
      if (at < span.from || at > span.to) continue;
      if (at < span.to) return true;
      // The last second may be told in two logs; only one that began before has its lines once more.
      const beganBefore = (this.#span?.from ?? at) < span.to;
      if (beganBefore && this.#repeated < span.inLast) {
        this.#repeated++;
        return true;
      }
    }
    return false;
  }

  #noteTime(at: number): void {
    const span = (this.#span ??= { from: at, to: at, inLast: 0 });
    if (at < span.from) span.from = at;
    if (at > span.to) {
      span.to = at;
      span.inLast = 0;
    }
    if (at === span.to) span.inLast++;
    if (at - this.#swept < SWEEP_EVERY) return;
    this.#swept = at;
    this.#sweep(at - OVER_AFTER);
  }

  /** Ends visits without a request since a moment. */
  #sweep(since: number): void {
    for (const [visitor, visit] of this.#open) {
      if (visit.last >= since) continue;
      this.#close(visit);
      this.#open.delete(visitor);
    }
    if (this.#open.size === 0 || this.#around.size > MOST_KNOWN) {
      this.#around.clear();
      for (const visitor of this.#open.keys())
        this.#around.add(ownCopy(visitor.slice(0, visitor.indexOf(' '))));
    }
  }

  #request(request: LogLine): void {
    const { target, status } = request;
    const page = this.#pageOf(target);
    if (page < 0) this.#elsewhere(request);
    else if (request.method !== 'GET' || (status !== 200 && status !== 304)) this.#counts.failed++;
    else this.#page(page, request, senderOf(request));
  }

  /** What else somebody asks for tells readers from programs. */
  #elsewhere(request: LogLine): void {
    this.#counts.elsewhere++;
    const { address, target } = request;
    if (target === '/robots.txt' || target.startsWith('/robots.txt?')) {
      const sender = senderOf(request);
      if (!this.#isBot(sender.agent)) this.#visitOf(request, sender).asksLikeBot = true;
    } else if (this.#around.has(address) && ASSET.test(target)) {
      // Whoever fetches what a page is made of has asked for the page before.
      const visit = this.#open.get(`${address} ${senderOf(request).agent}`);
      if (visit) visit.assets++;
    }
  }

  #page(page: number, request: LogLine, sender: LogSender): void {
    if (sender.isPrefetch) this.#counts.prefetched++;
    else if (this.#isBot(sender.agent)) this.#counts.bots++;
    else {
      const { at, target } = request;
      const visit = this.#visitOf(request, sender);
      visit.views++;
      if (visit.pages.includes(page)) return;
      const query = target.indexOf('?');
      visit.pages.push(page);
      visit.times.push(at);
      visit.sources.push(this.#sourceOf(query < 0 ? '' : target.slice(query + 1), sender.referrer));
    }
  }

  #visitOf({ address, at, target }: LogLine, { agent }: LogSender): Visit {
    const visitor = ownCopy(`${address} ${agent}`);
    let visit = this.#open.get(visitor);
    if (visit && at - visit.last > OVER_AFTER) {
      this.#close(visit);
      // Whoever came last stands last, so that the longest away stands first.
      this.#open.delete(visitor);
      visit = undefined;
    }
    if (!visit) {
      if (this.#open.size >= MOST_AT_ONCE) this.#closeFirst();
      visit = {
        first: at,
        last: at,
        isOwn: this.#marked.has(visitor) || this.#own.isOwnAddress(address),
        asksLikeBot: false,
        assets: 0,
        pages: [],
        times: [],
        sources: [],
        views: 0
      };
      this.#open.set(visitor, visit);
      this.#around.add(ownCopy(address));
    }
    visit.last = Math.max(visit.last, at);
    if (!visit.isOwn && this.#own.hasMark(target, agent)) {
      visit.isOwn = true;
      if (this.#marked.size < MOST_KNOWN) this.#marked.add(visitor);
    }
    return visit;
  }

  #closeFirst(): void {
    const first = this.#open.entries().next().value;
    if (!first) return;
    this.#close(first[1]);
    this.#open.delete(first[0]);
  }

  #close(visit: Visit): void {
    const { pages, times, sources, views } = visit;
    if (pages.length === 0) return;
    if (visit.isOwn) this.#counts.own += views;
    else if (this.#behavesLikeBot(visit)) this.#counts.hiddenBots += views;
    else {
      this.#counts.again += views - pages.length;
      this.#counts.visits += pages.length;
      for (const [i, page] of pages.entries()) this.#count(page, sources[i]!, times[i]!);
    }
  }

  #behavesLikeBot(visit: Visit): boolean {
    const { pages, assets, first, last } = visit;
    if (visit.asksLikeBot) return true;
    if (pages.length >= 2) {
      this.#several++;
      if (assets > 0) this.#dressed++;
    }
    const isHasty = pages.length >= HASTY_PAGES && last - first < HASTY_GAP * (pages.length - 1);
    // Where pictures and styles come from elsewhere nobody asks this server for them.
    const areMostDressed = this.#several >= 20 && this.#dressed > this.#several / 2;
    return assets === 0 && (isHasty || (areMostDressed && pages.length >= BARE_PAGES));
  }

  #count(page: number, source: VisitSource, at: number): void {
    const { day } = this.#localHour(at);
    let bySource = this.#visits.get(page);
    if (!bySource) this.#visits.set(page, (bySource = new Map()));
    let byDay = bySource.get(source);
    if (!byDay) bySource.set(source, (byDay = new Map()));
    byDay.set(day, (byDay.get(day) ?? 0) + 1);
    const utcDay = Math.floor(at / DAY);
    let hours = this.#hours.get(utcDay);
    if (!hours) this.#hours.set(utcDay, (hours = new Array<number>(24).fill(0)));
    const hour = Math.floor((at - utcDay * DAY) / (60 * MINUTE));
    hours[hour] = (hours[hour] ?? 0) + 1;
  }
}

/**
 * Finds which page a request was for. Most requests are for none, and are passed over by their path alone: to read an
 * address in full takes long.
 */
function pageFinder(pages: readonly string[], blogUrl: string): (target: string) => number {
  const { origin } = new URL(blogUrl);
  const known = new Map(pages.map((url, i) => [canonicalAddress(url), i]));
  const paths = new Set(pages.map((url) => plainPath(new URL(url).pathname)));
  const find = remembered((target: string) => {
    const url = target.startsWith('/') ? origin + target : target;
    // Some blogs name posts in the query; at others it only says how somebody came.
    const bare = canonicalAddress(url.split('?', 1)[0] ?? '');
    return known.get(canonicalAddress(url)) ?? known.get(bare) ?? -1;
  }, MOST_KNOWN);
  return (target) => {
    const isPlain = target.startsWith('/') && !target.includes('%');
    return isPlain && !paths.has(plainPath(target)) ? -1 : find(target);
  };
}

/** A path without its query and the slashes at its end. */
function plainPath(target: string): string {
  let end = target.length;
  for (const mark of ['?', '#']) {
    const at = target.indexOf(mark);
    if (at >= 0 && at < end) end = at;
  }
  while (end > 1 && target[end - 1] === '/') end--;
  return target.slice(0, end);
}

/** A function that knows its latest answers. */
function remembered<T>(find: (text: string) => T, most: number): (text: string) => T {
  const known = new Map<string, T>();
  return (text) => {
    const found = known.get(text);
    if (found !== undefined) return found;
    if (known.size >= most) known.clear();
    const answer = find(text);
    known.set(ownCopy(text), answer);
    return answer;
  };
}

/** The same text by itself: a part of a longer one would keep all of that in memory. */
const ownCopy = (text: string): string => ` ${text}`.slice(1);
