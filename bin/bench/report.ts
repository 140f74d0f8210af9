export interface Row {
  what: string;
  bar: string;
  measured: string;
  holds: boolean;
}
export const rows: Row[] = [];

export function report(what: string, bar: string, measured: string, holds: boolean): void {
  rows.push({ what, bar, measured, holds });
  console.log(`${holds ? 'holds ' : 'BROKEN'}  ${what}: ${measured} (bar: ${bar})`);
}

export const ms = (value: number) => `${Math.round(value).toLocaleString('en')} ms`;
export { median } from '../../src/lib/core/median.ts';
