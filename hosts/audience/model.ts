import type { Video } from '../world/world.ts';
import { randomOf } from './random.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** How much of an audience is there in each hour of the day (UTC), beside the mean. */
const HOURS = [
  0.5, 0.3, 0.2, 0.15, 0.15, 0.25, 0.5, 0.8, 0.9, 0.95, 1, 1.05, 1.25, 1.1, 0.95, 1, 1.15, 1.4, 1.8,
  2.3, 2.4, 1.9, 1.3, 0.8
];
/** The same by weekday, Monday first. */
const WEEKDAYS = [0.85, 0.9, 1, 0.95, 0.8, 1.15, 1.35];
/** On Saturday and Sunday people have the morning for it. */
const WEEKEND_MORNING = 1.8;

/** The hours of a week from the first of January 1970 on, a Thursday. */
const WEEK = Array.from({ length: 168 }, (_, i) => {
  const weekday = (Math.floor(i / 24) + 3) % 7;
  const hour = i % 24;
  const isLateMorning = weekday >= 5 && hour >= 8 && hour <= 11;
  return (HOURS[hour] ?? 1) * (WEEKDAYS[weekday] ?? 1) * (isLateMorning ? WEEKEND_MORNING : 1);
});

/** How many are there at a moment, beside the mean of a week: what the hours that are found are held against. */
export const attention = (at: number): number => WEEK[Math.floor(at / HOUR) % WEEK.length] ?? 1;

/** How much is left of the first day's interest after so many days: quick at first, and never nothing. */
export const interest = (days: number): number => 1 / (1 + days / 2.5) + 0.015;

/** How well something does beside others of its form: always the same for the same thing. */
export function appeal(id: string): number {
  const next = randomOf(`appeal ${id}`);
  const normal = Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next());
  return Math.exp(0.45 * normal);
}

/** Upright clips are seen by more, and what is long by fewer. */
export const formOf = ({ upright, duration }: Pick<Video, 'upright' | 'duration'>): number =>
  (upright ? 1.7 : 1) * (duration > 600 ? 0.75 : 1);

const FIRST_DAY_VIEWS = 60;
const LIKED = 0.045;
const RATED = 0.02;

/** Views of an upload on each day since it came out; the last one as far as it has come. */
export function viewsByDay(video: Video, now: number): number[] {
  const next = randomOf(`days ${video.id}`);
  const first = FIRST_DAY_VIEWS * appeal(video.id) * formOf(video);
  const days: number[] = [];
  for (let from = video.published; from < now; from += DAY) {
    const to = Math.min(from + DAY, now);
    let there = 0;
    for (let at = from; at < to; at += HOUR)
      there += attention(at) * (Math.min(HOUR, to - at) / DAY);
    days.push(first * interest(days.length) * there * (0.75 + 0.5 * next()));
  }
  return days;
}

export interface VideoFigures {
  views: number;
  likes: number;
  ratings: number;
  /** From 1 to 5. */
  stars: number;
}

export function videoFigures(video: Video, now: number): VideoFigures {
  const views = Math.round(viewsByDay(video, now).reduce((sum, n) => sum + n, 0));
  const liked = LIKED * appeal(`liked ${video.id}`);
  return {
    views,
    likes: Math.floor(views * liked),
    ratings: Math.floor(views * RATED),
    stars: Math.round((3.4 + 1.5 * randomOf(`stars ${video.id}`)()) * 10) / 10
  };
}
