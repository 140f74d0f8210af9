import { DateTime } from 'luxon';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { themeColours } from '../themeColours.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

export interface MonthRow {
  month: string;
  inStep: number;
  missing: number;
  open: number;
}

/** Twins by month: how many are in step, how many are alone, how many are in between. */
export function drawStandings(canvas: HTMLCanvasElement, rows: readonly MonthRow[]): Chart {
  const colours = themeColours({
    post: '--thread-post',
    video: '--thread-video',
    line: '--line',
    ink: '--ink-quiet'
  });
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: rows.map((r) => r.month),
      datasets: [
        { label: 'In step', data: rows.map((r) => r.inStep), backgroundColor: interlaced(colours) },
        {
          label: 'Drifted or in progress',
          data: rows.map((r) => r.open),
          backgroundColor: colours.line,
          borderColor: colours.post,
          borderWidth: 1
        },
        {
          label: 'One half only',
          data: rows.map((r) => r.missing),
          backgroundColor: 'transparent',
          borderColor: colours.video,
          borderWidth: 1
        }
      ]
    },
    options: {
      animation: false,
      maintainAspectRatio: false,
      plugins: { tooltip: { displayColors: false } },
      scales: {
        x: {
          stacked: true,
          grid: { display: false },
          border: { display: false },
          ticks: {
            color: colours.ink,
            font: { size: 11 },
            maxRotation: 0,
            autoSkip: false,
            // The months of the two ends say what lies between them.
            callback: (_value, i) => (i === 0 || i === rows.length - 1 ? monthName(rows[i]) : '')
          }
        },
        y: { stacked: true, display: false, beginAtZero: true }
      }
    }
  });
}

const monthName = (row?: MonthRow): string =>
  row ? DateTime.fromISO(row.month).setLocale('en').toFormat('LLL yy') : '';

/** The two threads side by side, as a pattern. */
function interlaced(colours: { post: string; video: string }): CanvasPattern | string {
  const tile = document.createElement('canvas');
  tile.width = tile.height = 8;
  const context = tile.getContext('2d');
  if (!context) return colours.post;
  context.fillStyle = colours.post;
  context.fillRect(0, 0, 8, 8);
  context.fillStyle = colours.video;
  context.fillRect(0, 0, 4, 4);
  context.fillRect(4, 4, 4, 4);
  return context.createPattern(tile, 'repeat') ?? colours.post;
}
