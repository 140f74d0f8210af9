import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { calendarFile } from './calendarFile.ts';
import { NoCalendarError, readBusyTimes } from './readBusyTimes.ts';

const NOW = Date.parse('2026-11-26T12:00:00Z');
const BERLIN = 'Europe/Berlin';
const calendar = (...lines: string[]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Wrenfold//Fairs//EN',
    ...lines,
    'END:VCALENDAR'
  ].join('\r\n');
const event = (...lines: string[]) =>
  calendar(
    'BEGIN:VEVENT',
    'UID:fair@wrenfold.example',
    'SUMMARY:Closed for the fair',
    ...lines,
    'END:VEVENT'
  );
const times = (file: string, zone = BERLIN) =>
  readBusyTimes(file, zone, NOW).busy.map(({ from, to }) =>
    [from, to].map((at) => new Date(at).toISOString().slice(0, 16)).join(' ')
  );

test('whole days begin and end where the user is', () => {
  const file = event('DTSTART;VALUE=DATE:20261204', 'DTEND;VALUE=DATE:20261207');
  assert.deepEqual(times(file), ['2026-12-03T23:00 2026-12-06T23:00']);
  assert.deepEqual(times(file, 'America/New_York'), ['2026-12-04T05:00 2026-12-07T05:00']);
  assert.equal(readBusyTimes(file, BERLIN, NOW).busy[0]?.title, 'Closed for the fair');
  // A day without an end is that day.
  assert.deepEqual(times(event('DTSTART;VALUE=DATE:20261204')), [
    '2026-12-03T23:00 2026-12-04T23:00'
  ]);
});

test('times are read with their zone, by its name, by its rules, and without one', () => {
  assert.deepEqual(times(event('DTSTART:20261204T090000Z', 'DURATION:PT2H')), [
    '2026-12-04T09:00 2026-12-04T11:00'
  ]);
  const named = event(
    'DTSTART;TZID=America/New_York:20261204T090000',
    'DTEND;TZID=America/New_York:20261204T100000'
  );
  assert.deepEqual(times(named), ['2026-12-04T14:00 2026-12-04T15:00']);
  assert.deepEqual(times(event('DTSTART:20261204T090000', 'DTEND:20261204T100000')), [
    '2026-12-04T08:00 2026-12-04T09:00'
  ]);
  const ruled = calendar(
    ...['BEGIN:VTIMEZONE', 'TZID:Mill', 'BEGIN:STANDARD', 'DTSTART:19700101T000000'],
    ...['TZOFFSETFROM:+0300', 'TZOFFSETTO:+0300', 'END:STANDARD', 'END:VTIMEZONE'],
    ...['BEGIN:VEVENT', 'UID:a', 'DTSTART;TZID=Mill:20261204T090000'],
    ...['DTEND;TZID=Mill:20261204T100000', 'END:VEVENT']
  );
  assert.deepEqual(times(ruled), ['2026-12-04T06:00 2026-12-04T07:00']);
});

test('what comes again is there each time, but for single times that are left out or moved', () => {
  const file = calendar(
    ...['BEGIN:VEVENT', 'UID:b', 'SUMMARY:Class', 'DTSTART;TZID=Europe/Berlin:20261201T180000'],
    ...['DTEND;TZID=Europe/Berlin:20261201T200000', 'RRULE:FREQ=WEEKLY;COUNT=4'],
    ...['EXDATE;TZID=Europe/Berlin:20261208T180000', 'END:VEVENT'],
    ...[
      'BEGIN:VEVENT',
      'UID:b',
      'SUMMARY:Class',
      'RECURRENCE-ID;TZID=Europe/Berlin:20261215T180000'
    ],
    ...['DTSTART;TZID=Europe/Berlin:20261216T180000', 'DTEND;TZID=Europe/Berlin:20261216T200000'],
    'END:VEVENT'
  );
  assert.deepEqual(times(file), [
    '2026-12-01T17:00 2026-12-01T19:00',
    '2026-12-16T17:00 2026-12-16T19:00',
    '2026-12-22T17:00 2026-12-22T19:00'
  ]);
});

test('what has passed, leaves the time free or was cancelled is left out and counted', () => {
  const one = (...lines: string[]) => readBusyTimes(event(...lines), BERLIN, NOW);
  const begins = ['DTSTART:20261204T090000Z', 'DURATION:PT2H'];
  for (const file of [
    one('DTSTART:20200101T090000Z', 'DURATION:PT2H'),
    one(...begins, 'TRANSP:TRANSPARENT'),
    one(...begins, 'STATUS:CANCELLED'),
    one('DTSTART:20261204T090000Z', 'DTEND:20261203T090000Z'),
    one('SUMMARY:No time at all')
  ])
    assert.deepEqual(file, { busy: [], leftOut: 1 });
});

test('what is no calendar says so, and nothing holds it up', () => {
  for (const file of ['', 'Dear weaver', '<html></html>', 'BEGIN:VCARD\r\nEND:VCARD'])
    assert.throws(() => readBusyTimes(file, BERLIN, NOW), NoCalendarError);
  const often = event('DTSTART:20261204T090000Z', 'DURATION:PT1S', 'RRULE:FREQ=SECONDLY');
  assert.equal(readBusyTimes(often, BERLIN, NOW).busy.length, 500);
  const lines = [
    'BEGIN:VEVENT',
    'DTSTART:20261204T090000Z',
    'RRULE:FREQ=DAILY;COUNT=x',
    'END:VEVENT'
  ];
  fc.assert(
    fc.property(fc.array(fc.oneof(fc.constantFrom(...lines), fc.string())), (some) => {
      try {
        readBusyTimes(calendar(...some), BERLIN, NOW);
      } catch (error) {
        assert.ok(error instanceof NoCalendarError);
      }
    })
  );
});

test('the calendar that is exported can be read back', () => {
  const at = NOW + 86_400_000;
  const file = calendarFile([{ id: 'k', title: 'Reeds', place: 'Blog', lane: 'By hand', at }], NOW);
  assert.deepEqual(readBusyTimes(file, BERLIN, NOW).busy, [
    { title: 'Reeds → Blog', from: at, to: at + 15 * 60_000 }
  ]);
});
