/** What of an address a device can draw by itself. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SHELL, shellFor, wantedOf } from './shell';

const wanted = (path: string) => {
  const shell = new URL(shellFor(new URL(path, 'http://bay.lan')), 'http://bay.lan');
  expect(shell.pathname).toBe(SHELL);
  return wantedOf(shell.search);
};

describe('the shell', () => {
  it('draws the board, and a job at the station one wanted', () => {
    expect(wanted('/')).toEqual({ page: 'board' });
    expect(wanted('/jobs/1042/fault')).toEqual({ page: 'job', number: 1042, path: '/jobs/1042/fault' });
    expect(wanted('/jobs/1042')).toEqual({ page: 'job', number: 1042, path: '/jobs/1042/readings' });
    expect(wanted('/jobs/1042/sizing?c=4#x')).toMatchObject({ page: 'job', path: '/jobs/1042/sizing' });
  });

  it('says of what the server makes that it needs it', () => {
    for (const path of ['/jobs/1042/report', '/jobs/1042/card', '/jobs/new', '/calendar', '/shop', '/jobs/0/fault'])
      expect(wanted(path), path).toEqual({ page: 'other', path });
  });

  it('leads nowhere but into the program, whatever stands in the address', () => {
    fc.assert(
      fc.property(fc.oneof(fc.webUrl(), fc.string(), fc.constant('//evil.example'), fc.constant('/\\\\evil')), (to) => {
        const found = wantedOf(`?to=${encodeURIComponent(to)}`);
        if (found.page !== 'board') expect(new URL(found.path, 'http://bay.lan').host).toBe('bay.lan');
      }),
    );
  });
});
