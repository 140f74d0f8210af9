import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** How many items a source gave in each week, oldest first. */
export function drawWeeks(canvas: HTMLCanvasElement, weeks: readonly number[]): Chart {
  const { color } = getComputedStyle(canvas);
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: weeks.map((_, i) => weekName(weeks.length - 1 - i)),
      // A week without any is a line, so that it is seen to be one.
      datasets: [{ data: [...weeks], backgroundColor: color, minBarLength: 1 }]
    },
    options: {
      animation: false,
      events: [],
      maintainAspectRatio: false,
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: {
        x: {
          grid: { display: false },
          border: { display: false },
          ticks: {
            color,
            font: { size: 11 },
            maxRotation: 0,
            autoSkip: false,
            // The ends say what lies between them.
            callback: (_value, i) =>
              i === 0 || i === weeks.length - 1 ? weekName(weeks.length - 1 - i) : ''
          }
        },
        y: {
          beginAtZero: true,
          border: { display: false },
          ticks: { color, font: { size: 11 }, precision: 0, maxTicksLimit: 3 }
        }
      }
    }
  });
}

const weekName = (ago: number): string => (ago === 0 ? 'now' : `${ago} wk ago`);
