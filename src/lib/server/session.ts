import { randomBytes, scryptSync } from 'node:crypto';
import type { Cookies } from '@sveltejs/kit';
import { getIronSession, type IronSession } from 'iron-session';
import type { Setup } from './visitors.ts';

/** What this server knows of a browser; it is kept there, in a cookie that only the server can read or write. */
export interface Session {
  /** Whether the password was given. */
  hasEntered?: boolean;
  /** Origins of the places that are linked there, which its pages may frame and show. */
  origins?: string[];
}

/** Seconds after which the password is asked for again. */
const LENGTH = 30 * 24 * 3600;
/** Where no password is set, sessions end with the server: they hold nothing that is not told anew. */
const OF_THIS_RUN = randomBytes(32).toString('base64');
const secrets = new Map<string, string>();

/** With another password all sessions are over. */
function secretOf(password: string): string {
  if (!password) return OF_THIS_RUN;
  const secret =
    secrets.get(password) ?? scryptSync(password, 'swift-twin session', 32).toString('base64');
  secrets.set(password, secret);
  return secret;
}

/** Cookies are shared by all ports of a host: each server has its own. */
const cookieName = (origin: string): string => {
  const port = URL.canParse(origin) ? new URL(origin).port : '';
  return port ? `swift-twin-${port}` : 'swift-twin';
};

/** The session of a browser; empty where it has none, or one that is not of this server. */
export async function sessionOf(
  cookies: Cookies,
  { origin, password }: Setup
): Promise<IronSession<Session>> {
  let isOurs = true;
  const store = {
    get(name: string) {
      const value = isOurs ? cookies.get(name) : undefined;
      return value === undefined ? undefined : { name, value };
    },
    set(...given: [string | { name: string; value: string }, string?, object?]) {
      const [first, value = '', options = {}] = given;
      if (typeof first === 'string') cookies.set(first, value, { path: '/', ...options });
    }
  };
  const options = {
    cookieName: cookieName(origin),
    password: secretOf(password),
    ttl: LENGTH,
    cookieOptions: {
      httpOnly: true,
      sameSite: 'strict',
      path: '/',
      secure: origin.startsWith('https:')
    }
  } as const;
  try {
    return await getIronSession<Session>(store, options);
  } catch {
    // A cookie that is no seal at all.
    isOurs = false;
    return getIronSession<Session>(store, options);
  }
}
