// @vitest-environment jsdom
/** What is being written is kept through a reload and a closed dialog, and is nobody else's after signing out. */
import { act, cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { forgetDrafts, useDraft } from './draft';

function Field({ name, initial = '' }: { name: string; initial?: string }) {
  const [text, set, forget] = useDraft(name, initial);
  return (
    <>
      <input aria-label={name} value={text} onChange={(e) => set(e.target.value)} />
      <button type="button" onClick={forget}>
        Send {name}
      </button>
    </>
  );
}
const shown = (name: string) => screen.getByLabelText<HTMLInputElement>(name).value;

beforeEach(forgetDrafts);
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe('a draft', () => {
  it('begins with what is usual and outlives the piece it is written in', async () => {
    const { unmount } = render(<Field name="1/note" initial="usual" />);
    expect(shown('1/note')).toBe('usual');
    await userEvent.clear(screen.getByLabelText('1/note'));
    await userEvent.type(screen.getByLabelText('1/note'), 'loose stud');
    unmount();
    render(<Field name="1/note" initial="usual" />);
    expect(shown('1/note')).toBe('loose stud');
  });

  it('is gone once it was sent, and of one job never shows in another', async () => {
    render(
      <>
        <Field name="1/note" />
        <Field name="2/note" />
      </>,
    );
    await userEvent.type(screen.getByLabelText('1/note'), 'corroded');
    expect(shown('2/note')).toBe('');
    await userEvent.click(screen.getByText('Send 1/note'));
    expect(shown('1/note')).toBe('');
  });

  it('is another person’s no more after signing out; what else the page keeps stays', async () => {
    sessionStorage.setItem('other', 'kept');
    render(<Field name="1/note" />);
    await userEvent.type(screen.getByLabelText('1/note'), 'x');
    act(forgetDrafts);
    expect(shown('1/note')).toBe('');
    expect(sessionStorage.getItem('other')).toBe('kept');
  });

  it('is written all the same where the browser keeps nothing', async () => {
    vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const { unmount } = render(<Field name="1/note" />);
    await userEvent.type(screen.getByLabelText('1/note'), 'full disk');
    unmount();
    render(<Field name="1/note" />);
    expect(shown('1/note')).toBe('full disk');
  });
});
