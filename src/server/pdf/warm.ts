/** Sets a whole report aside once: what the first report of a day would else wait for, of the library, its fonts and the core. */
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Job } from '../../core/job/job';
import { DEFAULT_SETTINGS } from '../../core/shop/shop';
import { reportPdf } from './report';

export async function warmPaper(): Promise<void> {
  const job = JSON.parse(await readFile(join(process.cwd(), 'examples/heron.surrik.json'), 'utf8')) as Job;
  await reportPdf({ job, shop: { name: '', settings: DEFAULT_SETTINGS, instruments: [] }, identity: {} }, new Date(0));
}
