import { redirect } from '@sveltejs/kit';
import type { RequestHandler } from './$types.js';

export const POST: RequestHandler = ({ locals }) => {
  locals.session.destroy();
  redirect(303, '/enter');
};
