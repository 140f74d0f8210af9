const UNITS = ['KB', 'MB', 'GB', 'TB'];

/** A number of bytes: `12.4 MB`. */
export function formatSize(bytes: number): string {
  let [value, unit] = [bytes / 1000, 0];
  while (value >= 999.5 && unit < UNITS.length - 1) {
    value /= 1000;
    unit++;
  }
  return `${unit === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${UNITS[unit]}`;
}
