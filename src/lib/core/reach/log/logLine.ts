/** One request, as a log of a web server has it. */
export interface LogLine {
  address: string;
  /** Milliseconds since 1970. */
  at: number;
  method: string;
  /** Path and query, as they were asked for. */
  target: string;
  status: number;
  /** The line, and where in it what was asked for ends: who asked is read only of what matters (`senderOf`). */
  line: string;
  end: number;
}

export interface LogSender {
  referrer: string;
  agent: string;
  /** Whether a browser only fetched it in case it would be looked at. */
  isPrefetch: boolean;
}

const MONTHS: ReadonlyMap<string, number> = new Map(
  ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'].map(
    (name, i) => [name, i]
  )
);

/** Reads lines in the Common and the Combined Log Format, of one virtual host or several; null for any other. */
export function logLineReader(): (line: string) => LogLine | null {
  // Lines that follow each other are mostly of the same minute.
  let minute = '';
  let minuteAt = NaN;
  const momentOf = (text: string): number => {
    // As `10/Oct/2026:13:55:36 -0700`.
    const key = text.slice(0, 17) + text.slice(20);
    if (key !== minute) {
      minute = key;
      minuteAt = minuteOf(text);
    }
    return minuteAt + Number(text.slice(18, 20)) * 1000;
  };

  return (line) => {
    const open = line.indexOf('[');
    const close = open < 0 ? -1 : line.indexOf(']', open);
    if (close - open !== 27) return null;
    const at = momentOf(line.slice(open + 1, close));
    if (Number.isNaN(at)) return null;
    const asked = quoted(line, close + 1);
    if (!asked) return null;
    const [method = '', target = ''] = asked.text.split(' ', 2);
    const status = Number(line.slice(asked.end + 1, asked.end + 4));
    if (!(status >= 100 && status < 600)) return null;
    return {
      address: addressIn(line, open),
      at,
      method,
      target,
      status,
      line,
      end: asked.end
    };
  };
}

/** The fields that the Combined Log Format adds to the Common one. */
export function senderOf({ line, end }: LogLine): LogSender {
  const referrer = quoted(line, end);
  const agent = referrer && quoted(line, referrer.end);
  return {
    referrer: referrer && referrer.text !== '-' ? referrer.text : '',
    agent: agent && agent.text !== '-' ? agent.text : '',
    // Servers add the header that says so (Sec-Purpose, Purpose) as a further field.
    isPrefetch: agent !== null && agent.end < line.length && saysPrefetch(line, agent.end)
  };
}

const saysPrefetch = (line: string, from: number): boolean => {
  const rest = line.slice(from);
  return rest.includes('prefetch') || rest.includes('prerender');
};

/** The text between the next two quotes; a quote within it stands behind a backslash. */
function quoted(line: string, from: number): { text: string; end: number } | null {
  const start = line.indexOf('"', from);
  if (start < 0) return null;
  let end = line.indexOf('"', start + 1);
  while (end > 0 && isEscaped(line, end)) end = line.indexOf('"', end + 1);
  return end < 0 ? null : { text: line.slice(start + 1, end), end: end + 1 };
}

function isEscaped(line: string, at: number): boolean {
  let slashes = 0;
  while (line.charCodeAt(at - 1 - slashes) === 92) slashes++;
  return slashes % 2 === 1;
}

/** The address of who asked: first in the line, or second where the name of the host stands before it. */
function addressIn(line: string, open: number): string {
  const first = line.indexOf(' ');
  if (first < 0 || first > open) return '';
  const name = line.slice(0, first);
  const second = line.indexOf(' ', first + 1);
  const next = line.slice(first + 1, second);
  // As `blog.example:443 203.0.113.7 - -`.
  return /^[^:]+:\d+$/.test(name) && next !== '-' && second < open ? next : name;
}

function minuteOf(text: string): number {
  const month = MONTHS.get(text.slice(3, 6));
  const sign = text[21] === '-' ? -1 : 1;
  const offset = sign * (Number(text.slice(22, 24)) * 60 + Number(text.slice(24, 26)));
  if (month === undefined) return NaN;
  const [day, year] = [Number(text.slice(0, 2)), Number(text.slice(7, 11))];
  const [hour, minutes] = [Number(text.slice(12, 14)), Number(text.slice(15, 17))];
  return Date.UTC(year, month, day, hour, minutes) - offset * 60_000;
}
