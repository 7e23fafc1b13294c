/** A drawing as an SVG file that stands alone: black on white, millimetres, any viewer's own narrow face. */
import type { Drawing, Shape } from './drawing';

const n = (x: number): string => String(Math.round(x * 100) / 100);
const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');

function one(s: Shape): string {
  switch (s.kind) {
    case 'line':
      return (
        `<polyline points="${s.points.map(([x, y]) => `${n(x)},${n(y)}`).join(' ')}" ` +
        `fill="none" stroke="${s.white ? '#fff' : '#000'}" stroke-width="${n(s.width)}" ` +
        `stroke-linejoin="round"${s.dash ? ` stroke-dasharray="${s.dash.join(' ')}"` : ''}/>`
      );
    case 'box':
      return (
        `<rect x="${n(s.x)}" y="${n(s.y)}" width="${n(s.w)}" ` +
        `height="${n(s.h)}"${s.round ? ` rx="${s.round}"` : ''} ` +
        `fill="${s.white ? '#fff' : 'none'}"${s.width > 0 ? ` stroke="#000" stroke-width="${n(s.width)}"` : ''}/>`
      );
    case 'dot':
      return `<circle cx="${n(s.x)}" cy="${n(s.y)}" r="${n(s.r)}"/>`;
    case 'text':
      return (
        `<text x="${n(s.x)}" y="${n(s.y)}" ` +
        `font-size="${n(s.size)}"${s.anchor === 'start' ? '' : ` text-anchor="${s.anchor}"`}` +
        `${s.bold ? ' font-weight="700"' : ''}${s.up ? ` transform="rotate(-90 ${n(s.x)} ${n(s.y)})"` : ''}` +
        `>${escaped(s.text)}</text>`
      );
  }
}

/** The file's text. */
export const svgOf = (d: Drawing): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<svg xmlns="http://www.w3.org/2000/svg" width="${n(d.width)}mm" ` +
  `height="${n(d.height)}mm" viewBox="0 0 ${n(d.width)} ${n(d.height)}" font-family="'Barlow ` +
  `Condensed','Roboto Condensed','Arial Narrow',Arial,sans-serif" role="img"><title>${escaped(d.title)}</title><rect ` +
  `width="100%" height="100%" fill="#fff"/>\n${d.shapes.map(one).join('\n')}\n</svg>\n`;
