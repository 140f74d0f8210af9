import {
  BarController,
  BarElement,
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartDataset,
  type Plugin
} from 'chart.js';
import { dateOfDay, type Day } from '$lib/core/reach/day.ts';
import type { ReachChart, ReachLine } from '$lib/core/reach/series.ts';
import { themeColours } from '../themeColours.ts';
import { formatDate } from '../messages.ts';

Chart.register(
  BarController,
  BarElement,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip
);

/** Both halves on one time axis, updates beneath them, and moments as numbered lines. */
export function drawReach(canvas: HTMLCanvasElement, data: ReachChart): Chart {
  const colours = themeColours({
    post: '--thread-post',
    video: '--thread-video',
    line: '--line',
    ink: '--ink-quiet',
    text: '--ink'
  });
  const { from, lines, marks } = data;
  const length = Math.max(1, ...lines.map(({ values }) => values.length));
  const hasUpdates = lines.some(({ kind }) => kind === 'update');
  const axis = {
    stack: 'reach',
    beginAtZero: true,
    border: { display: false },
    grid: { color: colours.line },
    ticks: { color: colours.ink, precision: 0, maxTicksLimit: 5, font: { size: 11 } }
  };
  return new Chart<'line' | 'bar', { x: number; y: number | null }[]>(canvas, {
    type: 'line',
    data: { datasets: lines.map((line) => datasetOf(line, from, colours)) },
    plugins: [markLines(marks, colours)],
    options: {
      animation: false,
      maintainAspectRatio: false,
      parsing: false,
      normalized: true,
      layout: { padding: { top: marks.length > 0 ? 16 : 4 } },
      interaction: { mode: 'index', intersect: false },
      plugins: {
        tooltip: {
          callbacks: {
            title: ([first]) => (first ? dayLabel(Number(first.parsed.x)) : ''),
            label: ({ dataset, parsed }) =>
              `${dataset.label}: ${Math.round(Number(parsed.y)).toLocaleString('en')}`
          }
        }
      },
      scales: {
        x: {
          type: 'linear',
          // Bars would move the ends apart from those of the lines.
          offset: false,
          min: from,
          max: from + length - 1,
          grid: { display: false },
          border: { color: colours.line },
          ticks: {
            color: colours.ink,
            font: { size: 11 },
            maxRotation: 0,
            precision: 0,
            maxTicksLimit: 8,
            includeBounds: false,
            callback: (value) => dayLabel(Number(value))
          }
        },
        // The one that is named first lies lowest.
        ...(hasUpdates && { updates: { ...axis, stackWeight: 1, offset: true } }),
        y: { ...axis, stackWeight: 3 }
      }
    }
  }) as Chart;
}

const dayLabel = (day: Day): string => formatDate(dateOfDay(Math.round(day)));

/** Lines are told apart by their strokes as well as by colour: solid for video, dashed for posts, bars for updates. */
function datasetOf(
  { label, kind, values }: ReachLine,
  from: Day,
  colours: Record<'post' | 'video' | 'ink', string>
): ChartDataset<'line' | 'bar', { x: number; y: number | null }[]> {
  const data = values.map((y, i) => ({ x: from + i, y }));
  if (kind === 'update')
    return {
      type: 'bar',
      label,
      data,
      yAxisID: 'updates',
      backgroundColor: colours.ink,
      barThickness: 'flex',
      maxBarThickness: 12
    };
  const colour = kind === 'video' ? colours.video : colours.post;
  return {
    type: 'line',
    label,
    data,
    yAxisID: 'y',
    borderColor: colour,
    backgroundColor: colour,
    borderWidth: 2,
    borderDash: kind === 'post' ? [6, 3] : [],
    // A single day would be no line.
    pointRadius: values.filter((value) => value !== null).length < 3 ? 3 : 0,
    pointStyle: kind === 'post' ? 'triangle' : 'circle',
    spanGaps: false
  };
}

function markLines(
  marks: ReachChart['marks'],
  colours: Record<'ink' | 'text', string>
): Plugin<'line' | 'bar'> {
  return {
    id: 'moments',
    afterDatasetsDraw({ ctx, chartArea, scales }) {
      const { x } = scales;
      if (!x) return;
      ctx.save();
      ctx.font = '11px sans-serif';
      ctx.textAlign = 'center';
      let last = -Infinity;
      let row = 0;
      for (const { day, number } of marks) {
        const at = x.getPixelForValue(day);
        if (at < chartArea.left - 1 || at > chartArea.right + 1) continue;
        ctx.strokeStyle = colours.ink;
        ctx.setLineDash([2, 3]);
        ctx.beginPath();
        ctx.moveTo(at, chartArea.top);
        ctx.lineTo(at, chartArea.bottom);
        ctx.stroke();
        // Numbers that would lie on each other stand side by side.
        row = at - last < 14 ? row + 1 : 0;
        last = at;
        ctx.fillStyle = colours.text;
        ctx.fillText(
          String(number),
          Math.min(at + row * 14, chartArea.right - 4),
          chartArea.top - 5
        );
      }
      ctx.restore();
    }
  };
}
