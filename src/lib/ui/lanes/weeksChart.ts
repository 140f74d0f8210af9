import { BarController, BarElement, CategoryScale, Chart, LinearScale } from 'chart.js';

Chart.register(BarController, BarElement, CategoryScale, LinearScale);

/** How many items a source gave in each week, oldest first. */
export function drawWeeks(canvas: HTMLCanvasElement, weeks: readonly number[]): Chart {
  const { color } = getComputedStyle(canvas);
  return new Chart(canvas, {
    type: 'bar',
    data: {
      labels: weeks.map((_, i) => i),
      // A week without any is a line, so that it is seen to be one.
      datasets: [{ data: [...weeks], backgroundColor: color, minBarLength: 1 }]
    },
    options: {
      animation: false,
      events: [],
      maintainAspectRatio: false,
      plugins: { legend: { display: false }, tooltip: { enabled: false } },
      scales: { x: { display: false }, y: { display: false, beginAtZero: true } }
    }
  });
}
