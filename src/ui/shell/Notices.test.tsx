/** What the page says of entries that are not safe yet, were not taken, or were set aside. */
import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { Notices, type NotTaken, type NoticesProps } from './Notices';

const nothing: NoticesProps = {
  waiting: 0,
  trouble: undefined,
  refused: [],
  failed: undefined,
  denied: undefined,
  onSeenDenied: () => {},
  onDismiss: () => {},
  onResend: () => {},
};
const entry = (more: Partial<NotTaken> = {}): NotTaken => ({
  id: '11111111-2222-4333-8444-555555555555',
  type: 'reading.keep',
  reason: 'Somebody changed it meanwhile.',
  aside: false,
  command: { type: 'reading.keep', payload: { value: 12.61 } },
  ...more,
});
const page = (more: Partial<NoticesProps>) => renderToStaticMarkup(<Notices {...nothing} {...more} />);
const words = (html: string) =>
  html
    .replaceAll(/<[^>]+>/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim();
const buttons = (html: string) => [...html.matchAll(/<(?:button|a)[^>]*>([^<]*)</g)].map((m) => m[1]!.trim());

describe('notices', () => {
  it('say nothing when all is safe, and nothing of a trouble that holds nothing up', () => {
    expect(page({})).toBe('');
    expect(words(page({ waiting: 0, trouble: 'No signal.' }))).toBe('');
  });

  it('count what waits on the device, one or several', () => {
    expect(words(page({ waiting: 1, trouble: 'No signal.' }))).toContain('1 entry waits on this device. No signal.');
    expect(words(page({ waiting: 3, trouble: 'No signal.' }))).toContain('3 entries wait on this device.');
  });

  it('of what was not taken say which and why, and want no more than that it is read', () => {
    const html = page({ refused: [entry()] });
    expect(words(html)).toContain('was not taken. Somebody changed it meanwhile.');
    expect(html).toContain('role="alert"');
    expect(buttons(html)).toEqual(['Understood']);
  });

  it('of a clock that is off say by how much; a little is no matter', () => {
    const said = (minutes: number) => words(page({ clockAhead: minutes * 60_000 }));
    expect([said(4), said(-4)]).toEqual(['', '']);
    expect(said(12)).toContain('clock is 12 minutes fast');
    expect(said(-300)).toContain('clock is 5 hours slow');
    expect(said(60 * 24 * 30)).toContain('clock is 30 days fast');
  });

  it('of what two decided let one choose: theirs stands until one puts one’s own in its place', () => {
    const html = page({
      refused: [entry({ conflict: true, reason: 'Meanwhile Ben changed the status. Theirs: a. Yours: b.' })],
    });
    expect(buttons(html)).toEqual(['Put mine in its place', 'Leave theirs']);
  });

  it('of what is set aside offer to send it again, to save it, and last to throw it away', () => {
    const html = page({ refused: [entry({ aside: true, reason: 'The server failed on it.' })] });
    expect(words(html)).toContain('is set aside on this device. The server failed on it.');
    expect(buttons(html)).toEqual(['Send again', 'Save a copy', 'Throw away']);
  });

  it('save the entry whole, in a file named after it', () => {
    const html = page({ refused: [entry({ aside: true })] });
    const href = /href="([^"]+)"/.exec(html)![1]!.replaceAll('&amp;', '&');
    expect(JSON.parse(decodeURIComponent(href.slice(href.indexOf(',') + 1)))).toEqual(entry().command);
    expect(/download="([^"]+)"/.exec(html)![1]).toBe('surrik-reading.keep-11111111.json');
  });

  it('tell each of several by itself, and a failed calculation beside them', () => {
    const html = page({
      refused: [entry(), entry({ id: 'b', aside: true, type: 'verdict.declare' })],
      failed: 'no operating point',
    });
    expect(buttons(html)).toEqual(['Understood', 'Send again', 'Save a copy', 'Throw away']);
    expect(words(html)).toContain('The calculation failed: no operating point.');
  });
});
