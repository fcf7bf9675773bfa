import { BarController, BarElement, CategoryScale, Chart, LinearScale, LineController, LineElement, PointElement, Tooltip } from 'chart.js';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip);

export { Chart };

/** A colour of the page as it is now, by the name of its token. */
export const token = (name: string): string => getComputedStyle(document.documentElement).getPropertyValue(name).trim();

/** How an axis looks: its words, and whether lines go over the chart. */
export const axis = (title: string | null, lines: boolean) => ({
  ...(title !== null && { title: { display: true, text: title, color: token('--muted') } }),
  ticks: { color: token('--muted') },
  grid: lines ? { color: token('--line') } : { display: false }
});
