import { createHash, timingSafeEqual } from 'node:crypto';

/** How this server is run; all of it from its environment. */
export interface Setup {
  /** The address that browsers have it at; empty for one on this machine alone. */
  origin: string;
  /** The address it listens at. */
  host: string;
  /** Asked of everybody, where it is not on this machine alone. */
  password: string;
}

const LOOPBACK = /^(?:localhost|127(?:\.\d{1,3}){3}|\[?::1\]?)$/i;
const isLoopback = (host: string): boolean => LOOPBACK.test(host);

const hostOf = (origin: string): string => (URL.canParse(origin) ? new URL(origin).hostname : '');

/**
 * Why a server is not started like this; empty where it may. It reads other sites for whoever may call
 * it, so beyond this machine it has to know its own name and to ask for a password.
 */
export function setupProblem({ origin, host, password }: Setup): string {
  if (origin && !/^https?:\/\/[^/]+$/.test(origin))
    return 'ORIGIN is no origin. Write it as https://twin.example, without a path.';
  const isHere = isLoopback(host) && (!origin || isLoopback(hostOf(origin)));
  if (isHere) return '';
  if (!origin)
    return 'It would listen beyond this machine. Set HOST=127.0.0.1, or ORIGIN to the address that browsers have it at and PASSWORD to what they are to give.';
  if (password.length < MIN_PASSWORD)
    return `It is reached from beyond this machine. Set PASSWORD to at least ${MIN_PASSWORD} characters.`;
  return '';
}
const MIN_PASSWORD = 12;

/**
 * Whether a call names this server. Another name that leads here (DNS rebinding) is one of a page that
 * wants to read what is not its own.
 * @param host the `Host` header
 */
export function isOurName(host: string | null, { origin }: Setup): boolean {
  if (!host || !URL.canParse(`http://${host}`)) return false;
  const { hostname } = new URL(`http://${host}`);
  return origin && !isLoopback(hostOf(origin))
    ? host.toLowerCase() === new URL(origin).host
    : isLoopback(hostname);
}

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();

/** Whether it is the password, where one is set. */
export const isPassword = (given: string, { password }: Setup): boolean =>
  password !== '' && timingSafeEqual(digest(given), digest(password));

/** Calls that one visitor may have under way, and those of a minute. */
const PAGES_CALL = { atOnce: 32, aMinute: 1_200 };

/** Keeps count of what each visitor calls. */
export class Visitors {
  readonly #most: typeof PAGES_CALL;
  readonly #now: () => number;
  readonly #counts = new Map<string, { underWay: number; since: number; calls: number }>();

  constructor(most = PAGES_CALL, now: () => number = Date.now) {
    this.#most = most;
    this.#now = now;
  }

  /** @returns what to call at the end of the call, or null where it is one too many */
  enter(visitor: string): (() => void) | null {
    const now = this.#now();
    const count = this.#counts.get(visitor) ?? { underWay: 0, since: now, calls: 0 };
    if (now - count.since >= 60_000) Object.assign(count, { since: now, calls: 0 });
    if (count.underWay >= this.#most.atOnce || count.calls >= this.#most.aMinute) return null;
    count.underWay++;
    count.calls++;
    this.#counts.set(visitor, count);
    return () => {
      count.underWay--;
      // Whoever has nothing under way and has not called for a minute is forgotten.
      for (const [name, { underWay, since }] of this.#counts)
        if (underWay === 0 && this.#now() - since >= 60_000) this.#counts.delete(name);
    };
  }
}
