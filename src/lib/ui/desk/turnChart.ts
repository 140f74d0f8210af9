import { Chart, Filler, LinearScale, LineController, LineElement, PointElement } from 'chart.js';

Chart.register(Filler, LinearScale, LineController, LineElement, PointElement);

/** How strongly the talk turns, over its seconds. */
export function drawTurns(
  canvas: HTMLCanvasElement,
  { curve, duration }: { curve: readonly { t: number; value: number }[]; duration: number }
): Chart {
  const style = getComputedStyle(canvas);
  const line = style.getPropertyValue('--thread-video') || style.color;
  return new Chart(canvas, {
    type: 'line',
    data: {
      datasets: [
        {
          data: curve.map(({ t, value }) => ({ x: t, y: value })),
          borderColor: line,
          borderWidth: 1.25,
          pointRadius: 0,
          fill: false,
          tension: 0.2
        }
      ]
    },
    options: {
      animation: false,
      parsing: false,
      normalized: true,
      maintainAspectRatio: false,
      events: [],
      layout: { padding: 0 },
      scales: {
        x: { type: 'linear', min: 0, max: duration, display: false },
        y: { min: 0, max: 1.05, display: false }
      },
      plugins: { legend: { display: false }, tooltip: { enabled: false } }
    }
  });
}
