import type { World } from '../context.ts';
import { viewsByDay } from './model.ts';

const DAY = 86_400_000;

/** What the channel exports to its owner: views of each upload day by day, as CSV (RFC 4180). */
export function figuresTable(world: World, days: number): string {
  const now = world.now();
  const rows = ['Date,Video,Address,Views'];
  for (const video of world.listed()) {
    let total = 0;
    for (const [i, views] of viewsByDay(video, now).entries()) {
      // Whole views, whose sum is that of the days.
      const gained = Math.round(total + views) - Math.round(total);
      total += views;
      const at = video.published + i * DAY;
      if (at < now - days * DAY) continue;
      const title = `"${video.title.replaceAll('"', '""')}"`;
      const date = new Date(at).toISOString().slice(0, 10);
      rows.push(`${date},${title},${world.channelUrl}watch/${video.id},${gained}`);
    }
  }
  return `${rows.join('\r\n')}\r\n`;
}
