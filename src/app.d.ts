import type { IronSession } from 'iron-session';
import type { Session } from '$lib/server/session.ts';

declare global {
  namespace App {
    interface Locals {
      session: IronSession<Session>;
    }
  }
}
