/** Seconds from `1:02:03.4`, `02:03,400` or `2:03`; null for anything else. */
export function readTimestamp(text: string): number | null {
  const match = /^(?:(\d+):)?([0-5]?\d):([0-5]?\d)(?:[.,:](\d{1,3}))?$/.exec(text.trim());
  if (!match) return null;
  const [, hours = '0', minutes = '0', seconds = '0', fraction = '0'] = match;
  const whole = Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds);
  // Not whole + 0.fraction: that sum would be a hair off the number that was written.
  return Number(`${whole}.${fraction}`);
}

/** `00:02:03.400`, as WebVTT has it; with `,` as the decimal mark, as SRT has it. */
export function writeTimestamp(seconds: number, mark: '.' | ',' = '.'): string {
  const ms = Math.max(0, Math.round(seconds * 1000));
  const two = (n: number) => String(n).padStart(2, '0');
  const whole = Math.floor(ms / 1000);
  const clock = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60].map(two);
  return `${clock.join(':')}${mark}${String(ms % 1000).padStart(3, '0')}`;
}
