/** The shade of an hour in which a share of the busiest hour's audience is there, from 0 to 1. */
export const shadeOf = (share: number): string =>
  `color-mix(in oklab, var(--thread-post) ${Math.round(share * 55)}%, transparent)`;
