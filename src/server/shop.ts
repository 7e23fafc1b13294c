/** A shop's settings and instruments: read, and changed by commands as a job is. */
import type { Knex } from 'knex';
import { DEFAULT_SETTINGS, reduceShop, type Settings, type Shop } from '../core/shop/shop';
import { actOfShopCommand, shopMatter } from '../core/shop/shopSchema';
import { validateShopCommand } from '../core/openFormats/validate';
import { paceOf, type Pace, type TimedStep } from '../core/diagnose/pace';
import { pointPlace } from '../core/probe/measurement';
import type { Rig } from '../core/rig/schema';
import type { ApiAnswer } from '../core/openFormats/answers';
import { mayOrRefuse, Refused, type Actor } from './actor';
import { withShop } from './db';
import { checkedCommand, hashOf, takenBefore, type Acknowledged } from './commandIntake';

export type ShopSnapshot = ApiAnswer<'shopSnapshot'>;

/** The shop of the transaction; settings it never touched are the usual ones. */
export async function loadShop(tx: Knex.Transaction, lock = false): Promise<{ seq: number; shop: Shop }> {
  const query = tx('shops').select('name', 'settings', 'instruments', 'seq');
  const row = (await (lock ? query.forUpdate() : query).first()) as {
    name: string;
    settings: Partial<Shop['settings']> | null;
    instruments: Shop['instruments'];
    seq: number;
  };
  return { seq: row.seq, shop: { name: row.name, settings: completed(row.settings), instruments: row.instruments } };
}

/** What was set before a newer Surrik knew more settings is completed with the usual ones. */
const completed = (set: Partial<Settings> | null): Settings => ({
  ...DEFAULT_SETTINGS,
  ...set,
  openMinutes: { ...DEFAULT_SETTINGS.openMinutes, ...set?.openMinutes },
  likelihoods: { ...DEFAULT_SETTINGS.likelihoods, ...set?.likelihoods },
});

export async function shopSnapshot(db: Knex, actor: Actor): Promise<ShopSnapshot> {
  return withShop(db, actor.shopId, async (tx) => ({
    ...(await loadShop(tx)),
    actor: { name: actor.name, role: actor.role },
    pace: await shopPace(tx),
  }));
}

/** Rounds older than these jobs say little of today's shop. */
const RECENT_JOBS = 60;

async function shopPace(tx: Knex.Transaction): Promise<Pace[]> {
  const jobs = (await tx('jobs').orderBy('number', 'desc').limit(RECENT_JOBS).select('id')) as { id: string }[];
  const rounds: TimedStep[][] = [];
  for (const { id } of jobs) {
    const { doc } = (await tx('revisions').where({ job_id: id }).orderBy('position', 'desc').first('doc')) as {
      doc: Rig;
    };
    const readings = (await tx('readings')
      .where({ job_id: id, retracted: false })
      .orderBy('taken_at')
      .select('probe', 'state', 'by_name', 'taken_at')) as {
      probe: string;
      state: string;
      by_name: string;
      taken_at: Date;
    }[];
    const places = new Map(doc.probes.filter((p) => !p.retired).map((p) => [p.key, pointPlace(doc, p.key).place]));
    for (const by of new Set(readings.map((r) => r.by_name)))
      rounds.push(
        readings.flatMap((r): TimedStep[] => {
          const place = places.get(r.probe);
          return r.by_name !== by || place === undefined
            ? []
            : [{ place, state: r.state, minute: r.taken_at.getTime() / 60_000 }];
        }),
      );
  }
  return paceOf(rounds);
}

export async function submitShopCommand(db: Knex, actor: Actor, data: unknown): Promise<Acknowledged> {
  const command = checkedCommand(validateShopCommand(data), actor);
  mayOrRefuse(actor, actOfShopCommand(command));
  const hash = hashOf('shop', command);
  return withShop(db, actor.shopId, async (tx) => {
    const { seq: last, shop } = await loadShop(tx, true);
    const before = await takenBefore(tx, 'shop_commands', { shop_id: actor.shopId, id: command.id }, hash);
    if (before) return before;
    if (command.baseSeq > last)
      throw new Refused(
        409,
        'ahead',
        'This device has seen changes that this server does not have. Look at the settings as they are now, then enter yours again.',
      );
    const matters = shopMatter(command);
    const newer = (await tx('shop_commands as c')
      .join('people as p', (on) => on.on('p.shop_id', 'c.shop_id').andOn('p.id', 'c.person_id'))
      .where('c.seq', '>', command.baseSeq)
      .whereRaw('c.matters && ?::text[]', [matters])
      .first('p.name')) as { name: string } | undefined;
    if (newer)
      throw new Refused(
        409,
        'conflict',
        `Meanwhile ${newer.name} changed the same setting. Look at it as it is now, then enter yours again if it still holds.`,
      );

    const next = reduceShop(shop, command);
    const seq = last + 1;
    await tx('shop_commands').insert({
      shop_id: actor.shopId,
      seq,
      id: command.id,
      type: command.type,
      version: command.version,
      base_seq: command.baseSeq,
      at: command.at,
      person_id: actor.personId,
      matters,
      payload: JSON.stringify(command.payload),
      content_hash: hash,
    });
    await tx('shops')
      .where({ id: actor.shopId })
      .update({ settings: JSON.stringify(next.settings), instruments: JSON.stringify(next.instruments), seq });
    return { id: command.id, seq, again: false };
  });
}
