/** A chart as a picture that stands alone: on its paper, with its title and its legend. */
import type { LegendLine } from './ChartFrame';
import { sheet } from './sheet';

const MARGIN = 14;
const LINE = 24;

/** @returns PNG of the canvas at its own resolution. Rejects where the browser gives none. */
export async function pictureOf(
  canvas: HTMLCanvasElement,
  title: string,
  legend: readonly LegendLine[],
): Promise<Blob> {
  // What is drawn has as many pixels a point as the screen has.
  const scale = canvas.width / Math.max(1, canvas.clientWidth);
  const [width, height] = [
    canvas.clientWidth + 2 * MARGIN,
    canvas.clientHeight + 2 * MARGIN + LINE * (1 + legend.length),
  ];
  const whole = document.createElement('canvas');
  [whole.width, whole.height] = [width * scale, height * scale];
  const ctx = whole.getContext('2d');
  if (!ctx) throw new Error('no drawing context');
  ctx.scale(scale, scale);
  ctx.fillStyle = sheet('--card');
  ctx.fillRect(0, 0, width, height);
  ctx.fillStyle = sheet('--ink');
  ctx.font = `700 18px ${sheet('--font-cond')}`;
  ctx.textBaseline = 'middle';
  ctx.fillText(title, MARGIN, MARGIN + LINE / 2);
  ctx.drawImage(canvas, MARGIN, MARGIN + LINE, canvas.clientWidth, canvas.clientHeight);
  ctx.font = `600 15px ${sheet('--font-cond')}`;
  legend.forEach((l, i) => {
    const y = MARGIN + LINE * (1.5 + i) + canvas.clientHeight;
    ctx.strokeStyle = sheet(l.colour);
    ctx.lineWidth = l.heavy ? 4 : 2.5;
    ctx.setLineDash([...(l.dash ?? [])]);
    ctx.beginPath();
    ctx.moveTo(MARGIN, y);
    ctx.lineTo(MARGIN + 34, y);
    ctx.stroke();
    ctx.fillText(l.name, MARGIN + 44, y);
  });
  return new Promise((done, fail) =>
    whole.toBlob((blob) => (blob ? done(blob) : fail(new Error('no picture'))), 'image/png'),
  );
}
