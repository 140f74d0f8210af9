/** A stretch of time whose requests were counted. Milliseconds since 1970. */
export interface LogSpan {
  from: number;
  to: number;
  /** Lines of its last second: a log that goes on from there may have further ones. */
  inLast: number;
}

/** The stretches of earlier logs with that of one more; those that touch or overlap are one. */
export function withSpan(spans: readonly LogSpan[], more: LogSpan): LogSpan[] {
  const all = [...spans, more].sort((a, b) => a.from - b.from);
  const joined: LogSpan[] = [];
  for (const span of all) {
    const last = joined.at(-1);
    if (!last || span.from > last.to) joined.push({ ...span });
    else if (span.to > last.to) {
      last.to = span.to;
      last.inLast = span.inLast;
    } else if (span.to === last.to) last.inLast = Math.max(last.inLast, span.inLast);
  }
  return joined;
}
