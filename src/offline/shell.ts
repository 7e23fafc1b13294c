/** Where one is sent when a page of the server cannot be had: one page that draws what this device holds. */
export const SHELL = '/offline';

/** The shell, told where one wanted to go. */
export const shellFor = (url: URL): string => `${SHELL}?to=${encodeURIComponent(`${url.pathname}${url.search}`)}`;

export type Wanted =
  { page: 'board' } | { page: 'job'; number: number; path: string } | { page: 'other'; path: string };

/** What of the program an address is, as far as a device can draw it by itself. */
export function wantedOf(search: string): Wanted {
  const to = new URLSearchParams(search).get('to') ?? '/';
  // Only a path of ours: what stands in an address is anybody's.
  const path = /^\/(?![/\\])/.test(to) ? to : '/';
  if (path === '/' || path.startsWith('/?')) return { page: 'board' };
  const job = /^\/jobs\/([1-9]\d{0,6})(?:\/([a-z]+))?(?:[?#].*)?$/.exec(path);
  const papers = ['report', 'card', 'wiring', 'trail'];
  if (job && !papers.includes(job[2] ?? ''))
    return { page: 'job', number: Number(job[1]), path: `/jobs/${job[1]}/${job[2] ?? 'readings'}` };
  return { page: 'other', path };
}
