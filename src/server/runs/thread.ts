/** In a thread of its own: papers are set, files checked and an owner's hours simulated while its worker goes on. */
import { parentPort } from 'node:worker_threads';
import { expose } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter';
import { ownerCard, type OwnerCard } from '../../core/documents/ownerCard';
import { checkedJobText } from '../../core/openFormats/validate';
import type { Job, Revision } from '../../core/job/job';
import type { Settings, Shop } from '../../core/shop/shop';
import { cardPdf } from '../pdf/ownerCard';
import { reportPdf } from '../pdf/report';
import { warmPaper } from '../pdf/warm';
import { wiringPdf } from '../pdf/wiring';

type Bytes = Uint8Array<ArrayBuffer>;
const bytes = async (pdf: Promise<Buffer>): Promise<Bytes> => new Uint8Array(await pdf);

/** What can be made of what was asked: all of it plain data, since it crosses a database. Times are ISO 8601. */
const makers = {
  warm: warmPaper,
  report: (of: Parameters<typeof reportPdf>[0], now: string): Promise<Bytes> => bytes(reportPdf(of, new Date(now))),
  card: (of: Parameters<typeof cardPdf>[0]): Promise<Bytes> => bytes(cardPdf(of)),
  wiring: (job: number, revision: Revision, shop: Shop, now: string): Promise<Bytes> =>
    bytes(wiringPdf(job, revision, shop, new Date(now))),
  checkJob: (text: string) => checkedJobText(text),
  ownerCard: (job: Job, settings: Settings): OwnerCard => ownerCard(job, settings),
};

export type Makers = typeof makers;
if (parentPort) expose(makers, nodeEndpoint(parentPort));
