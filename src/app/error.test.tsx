// @vitest-environment jsdom
/** A page that fails: said in words, and open again by a press once what failed it is gone. */
import { fireEvent, render, screen } from '@testing-library/react';
import { Component, type ReactNode } from 'react';
import { expect, it, vi } from 'vitest';
import { renderToStaticMarkup } from 'react-dom/server';
import PageFailed from './error';
import ProgramFailed from './global-error';

/** What the framework does with a failed page. */
class Boundary extends Component<{ children: ReactNode }, { error?: Error }> {
  override state: { error?: Error } = {};
  static getDerivedStateFromError = (error: Error) => ({ error });
  override render() {
    const { error } = this.state;
    return error ? (
      <PageFailed error={error} reset={() => this.setState({ error: undefined! })} />
    ) : (
      this.props.children
    );
  }
}

it('says what failed and that what was kept is safe, and opens again', () => {
  vi.spyOn(console, 'error').mockImplementation(() => undefined);
  let broken = true;
  const Page = () => {
    if (broken) throw new Error('a band without its rig');
    return <p>the bench</p>;
  };
  render(
    <Boundary>
      <Page />
    </Boundary>,
  );
  expect(screen.getByRole('alert').textContent).toMatch(/a band without its rig/);
  expect(screen.getByRole('alert').textContent).toMatch(/What you kept is on this device or with the job/);
  expect(screen.getByRole('link', { name: 'All jobs' }).getAttribute('href')).toBe('/');
  broken = false;
  fireEvent.click(screen.getByRole('button', { name: 'Open it again' }));
  expect(screen.getByText('the bench')).toBeTruthy();
});

it('says the same on a page that stands by itself, where what holds every page fails', () => {
  const html = renderToStaticMarkup(
    <ProgramFailed error={new Error('a route nobody knows')} reset={() => undefined} />,
  );
  expect(html).toMatch(/^<html lang="en"/);
  expect(html).toContain('a route nobody knows');
  expect(html).toContain('What you kept is on this device');
});
