// @vitest-environment jsdom
/** Parts whose scripts come late, or not at all at first: the page around them stays. */
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { Suspense, type ReactNode } from 'react';
import { afterEach, expect, it, vi } from 'vitest';
import { lazyPart } from './lazyPart';

afterEach(cleanup);
HTMLDialogElement.prototype.showModal ??= function (this: HTMLDialogElement) {
  this.open = true;
};
HTMLDialogElement.prototype.close ??= function (this: HTMLDialogElement) {
  this.open = false;
};

const Page = ({ children }: { children: ReactNode }) => (
  <>
    <p>the page</p>
    <Suspense fallback={<p>coming</p>}>{children}</Suspense>
  </>
);
/** An import that fails so often, then gives a part that says whose it is. */
function failing(times: number) {
  const load = vi.fn(() =>
    load.mock.calls.length <= times
      ? Promise.reject(new Error('chunk'))
      : Promise.resolve({ Part: ({ whose }: { whose: string; onClose?: () => void }) => <p>part of {whose}</p> }),
  );
  return load;
}
const shown = async (node: ReactNode) => {
  await act(async () => void render(<Page>{node}</Page>));
};

it('comes, is asked for once, and passes on what it is given', async () => {
  const load = failing(0);
  const Part = lazyPart(load, 'Part');
  await shown(<Part whose="1042" />);
  expect(await screen.findByText('part of 1042')).toBeTruthy();
  cleanup();
  await shown(<Part whose="1043" />);
  expect(screen.getByText('part of 1043')).toBeTruthy();
  expect(load).toHaveBeenCalledTimes(1);
});

it('is asked for again where it does not arrive', async () => {
  const load = failing(2);
  const Part = lazyPart(load, 'Part', [1, 1]);
  await shown(<Part whose="1042" />);
  expect(await screen.findByText('part of 1042')).toBeTruthy();
  expect(load).toHaveBeenCalledTimes(3);
});

it('says so where it never came, keeps the page, and comes when asked for by hand', async () => {
  const load = failing(2);
  const Part = lazyPart(load, 'Part', [1]);
  await shown(<Part whose="1042" />);
  expect((await screen.findByRole('alert')).textContent).toMatch(/has not arrived/);
  expect(screen.getByText('the page')).toBeTruthy();
  await act(async () => void fireEvent.click(screen.getByRole('button', { name: 'Ask for it again' })));
  expect(await screen.findByText('part of 1042')).toBeTruthy();
});

it('a dialog that never came can be closed', async () => {
  const Part = lazyPart(failing(9), 'Part', []);
  const close = vi.fn();
  await shown(<Part whose="1042" onClose={close} />);
  fireEvent.click(await screen.findByRole('button', { name: 'Close' }));
  expect(close).toHaveBeenCalledOnce();
});
