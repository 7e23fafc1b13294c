// @vitest-environment jsdom
/** What is behind a dialog knows that it is: its highlight is put out. */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import { inADocument } from '../../tests/dom';
import { Sheet } from './Dialog';

inADocument();
const behind = () => document.documentElement.classList.contains('dialog-open');

it('from the first to the last of those that are open', async () => {
  let closed = 0;
  const one = (title: string) => (
    <Sheet key={title} title={title} onClose={() => closed++}>
      {title}
    </Sheet>
  );
  expect(behind()).toBe(false);
  const { rerender, unmount } = render(<>{one('first')}</>);
  expect(behind()).toBe(true);
  rerender(<>{[one('first'), one('second')]}</>);
  rerender(<>{[one('second')]}</>);
  expect(behind()).toBe(true);
  await userEvent.click(screen.getByRole('button', { name: 'Close' }));
  expect(closed).toBe(1);
  unmount();
  expect(behind()).toBe(false);
});
