import { historyOf } from '$lib/core/lanes/runner.ts';
import { calendarFile, type Planned } from '$lib/core/lanes/calendar.ts';
import { planSlots } from '$lib/core/lanes/pace.ts';
import { allLanes, laneStore } from '$lib/data/lanes.ts';
import { allEntries } from '$lib/data/outbox.ts';
import { placeTitles } from '$lib/data/places.ts';
import { downloadBlob } from '../download.ts';
import { laneWorld } from './world.ts';

/** When all that is planned will go out, lane by lane, as far as is known now. */
export async function planned(): Promise<Planned[]> {
  const now = Date.now();
  const names = await placeTitles();
  const all: Planned[] = [];
  for (const lane of await allLanes()) {
    const entries = (await laneStore.entries(lane.id)).filter((e) => e.wanted === 'published');
    const waiting = entries
      .filter((e) => e.state === 'planned')
      .sort((a, b) => a.created - b.created);
    const items = [...new Set(waiting.map((e) => e.itemId))];
    const history = await historyOf(lane, laneWorld, entries);
    const slots = planSlots(lane.pace, history, now, items.length);
    for (const { itemId, key, placeId, payload } of waiting) {
      const slot = slots[items.indexOf(itemId)];
      if (!slot) continue;
      const place = names.get(placeId) ?? '';
      all.push({ id: key, title: payload.title, place, lane: lane.name, at: slot.at });
    }
  }
  // What was planned by hand for a date.
  for (const { key, laneId, state, nextTry, placeId, payload } of await allEntries())
    if (!laneId && state === 'waiting' && nextTry > now)
      all.push({
        id: key,
        title: payload.title,
        place: names.get(placeId) ?? '',
        lane: 'By hand',
        at: nextTry
      });
  return all.sort((a, b) => a.at - b.at);
}

export async function exportCalendar(): Promise<number> {
  const all = await planned();
  const file = calendarFile(all, Date.now());
  downloadBlob('planned.ics', new Blob([file], { type: 'text/calendar' }));
  return all.length;
}
