import { toProblem } from '$lib/core/delivery/retry.ts';
import { readAddress } from '$lib/places/wire.ts';
import type { FetchPage } from '$lib/workers/coreApi.ts';

/** Fetches pages of a feed for the worker, which cannot be thrown at: problems come as data. */
export const pageFetcher =
  (signal: AbortSignal, fetched: () => void = () => {}): FetchPage =>
  async (url) => {
    try {
      const page = await readAddress(url, signal);
      fetched();
      return { page, problem: null };
    } catch (error) {
      return { page: null, problem: toProblem(error) };
    }
  };
