/** In a thread of its own: papers are set and an owner's hours simulated while the server goes on answering. */
import { parentPort } from 'node:worker_threads';
import { expose, transfer } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import { ownerCard, type OwnerCard } from '../../core/documents/ownerCard';
import { checkedJobText } from '../../core/openFormats/validate';
import type { Job, Revision } from '../../core/job/job';
import type { Settings, Shop } from '../../core/shop/shop';
import { cardPdf } from './ownerCard';
import { reportPdf } from './report';
import { warmPaper } from './warm';
import { wiringPdf } from './wiring';

async function handed(pdf: Promise<Buffer>): Promise<Uint8Array<ArrayBuffer>> {
  // A buffer may be a window into a larger pool, which cannot be given away.
  const bytes = new Uint8Array(await pdf);
  return transfer(bytes, [bytes.buffer]);
}

const api = {
  warm: warmPaper,
  report: (of: Parameters<typeof reportPdf>[0], now: Date): Promise<Uint8Array<ArrayBuffer>> =>
    handed(reportPdf(of, now)),
  card: (of: Parameters<typeof cardPdf>[0]): Promise<Uint8Array<ArrayBuffer>> => handed(cardPdf(of)),
  wiring: (job: number, revision: Revision, shop: Shop, now: Date): Promise<Uint8Array<ArrayBuffer>> =>
    handed(wiringPdf(job, revision, shop, now)),
  checkJob: (text: string) => checkedJobText(text),
  ownerCard: (job: Job, settings: Settings): OwnerCard => ownerCard(job, settings),
};

export type PaperApi = typeof api;
expose(api, nodeEndpoint(parentPort!));
