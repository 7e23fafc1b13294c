// @vitest-environment jsdom
/** A file that is asked for: said while it is made, stopped, failed, saved under its name. */
import { act, fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it, vi } from 'vitest';
import { inADocument } from '../../tests/dom';
import { FileSource, type FetchFile } from './fetchFile';
import { MadeFile } from './MadeFile';

inADocument();
const saved: string[] = [];
vi.mock('./download', () => ({ downloadBlob: (name: string) => void saved.push(name) }));

function shown(first?: { is: boolean; says: string }) {
  const asked: { path: string; signal: AbortSignal; done: (name: string) => void; fail: (why: string) => void }[] = [];
  const source: FetchFile = (path, signal) =>
    new Promise((resolve, reject) => {
      asked.push({
        path,
        signal,
        done: (name) => resolve({ name, blob: new Blob() }),
        fail: (why) => reject(new Error(why)),
      });
    });
  const piece = (now = first) => (
    <FileSource value={source}>
      <MadeFile href="/api/jobs/1/report.pdf" {...(now ? { first: now } : {})}>
        Report
      </MadeFile>
    </FileSource>
  );
  const { rerender } = render(piece());
  return { asked, again: (now: { is: boolean; says: string }) => rerender(piece(now)) };
}
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));

describe('a file the server makes', () => {
  it('is said to be in the making, and saved under the name it comes with', async () => {
    const { asked } = shown();
    press('Report');
    expect(screen.getByRole('status').textContent).toContain('Being made');
    await act(async () => asked[0]!.done('job-1-report.pdf'));
    expect(saved).toEqual(['job-1-report.pdf']);
    expect(screen.getByRole('button', { name: 'Report' })).toBeTruthy();
  });

  it('is no longer waited for after Stop, and nothing is saved then', async () => {
    saved.length = 0;
    const { asked } = shown();
    press('Report');
    press('Stop');
    expect(asked[0]!.signal.aborted).toBe(true);
    await act(async () => asked[0]!.done('late.pdf'));
    expect(saved).toEqual([]);
    expect(screen.queryByRole('alert')).toBeNull();
    expect(screen.getByRole('button', { name: 'Report' })).toBeTruthy();
  });

  it('says why it was not made, until it is asked for again', async () => {
    const { asked } = shown();
    press('Report');
    await act(async () => asked[0]!.fail('This took longer than 20 s and was stopped.'));
    expect(screen.getByRole('alert').textContent).toContain('20 s');
    press('Report');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('waits for what must go before it', () => {
    const { asked, again } = shown({ is: false, says: 'Sending what you entered first …' });
    press('Report');
    expect(asked).toHaveLength(0);
    expect(screen.getByRole('status').textContent).toContain('Sending what you entered first');
    again({ is: true, says: '' });
    expect(asked.map((a) => a.path)).toEqual(['/api/jobs/1/report.pdf']);
  });
});
