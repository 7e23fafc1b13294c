// @vitest-environment jsdom
/** What the page asks of the core first: the bands in sight are there before anything longer has been worked out. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { renderHook, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { beforeEach, expect, it, vi } from 'vitest';
import { exampleJob } from '../../tests/answers';
import { workerApi } from '../../tests/workerApi';
import { currentRevision } from '../core/job/job';
import { statesOf } from '../core/operate/states';
import { DEFAULT_SETTINGS } from '../core/shop/shop';
import type { CoreApi } from '../workers/core.worker';
import { useCore } from './useCore';

const asked: string[] = [];
let core: CoreApi;
let answer: () => void;
vi.mock('./engine', () => ({
  namedRig: ({ id, doc }: { id: string; doc: object }) => ({ key: id, doc }),
  engine: () => ({
    table: async (...a: Parameters<CoreApi['table']>) => (asked.push('table'), Promise.resolve(core.table(...a))),
    bands: async (...a: Parameters<CoreApi['bands']>) => (asked.push(`bands ${a[2]}`), core.bands(...a)),
    diagnose: () => (asked.push('diagnose'), new Promise((done) => (answer = () => done({ suspects: [], next: [] })))),
  }),
}));

beforeEach(async () => {
  core = await workerApi('core');
  asked.length = 0;
});
const client = new QueryClient();
const around = ({ children }: { children: ReactNode }) => (
  <QueryClientProvider client={client}>{children}</QueryClientProvider>
);

it('a job nobody has read anything of has its bands while the suspects are still worked out, then those of all states', async () => {
  const heron = exampleJob('heron');
  const job = { ...heron, readings: [], verdicts: [], repairs: [], revisions: heron.revisions.slice(0, 1) };
  const here = job.rigState.id;
  const { result } = renderHook(() => useCore(job, DEFAULT_SETTINGS), { wrapper: around });
  expect(asked.slice(0, 3)).toEqual(['table', `bands ${here}`, 'diagnose']);
  await waitFor(() => expect(result.current.bands[here]).toBeDefined());
  expect(result.current.diagnosis).toBeUndefined();
  expect(Object.keys(result.current.bands)).toEqual([here]);
  expect(Object.values(result.current.bands[here]!)[0]).toMatchObject({ lo: expect.any(Number), unit: 'V' });
  answer();
  const states = statesOf(currentRevision(job).doc).map((s) => s.id);
  await waitFor(() => expect(Object.keys(result.current.bands).sort()).toEqual([...states].sort()), {
    timeout: 30_000,
  });
  // Each once, whoever asks for it.
  expect(asked.filter((a) => a.startsWith('bands'))).toHaveLength(states.length);
});
