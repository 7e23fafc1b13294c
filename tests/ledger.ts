/**
 * An account of its own of what a server has acknowledged, kept beside it: readings are entered over HTTP while its parts
 * are killed, and at the end the database is held against the account. It shares nothing with what it checks but the
 * shape of a request.
 */
import { randomUUID } from 'node:crypto';
import { sealData } from 'iron-session';
import type { Knex } from 'knex';

interface Person {
  shopId: string;
  personId: string;
  name: string;
}

export class Ledger {
  /** Acknowledged readings by command id: their number in the job, as it was told, and their value. */
  readonly acknowledged = new Map<string, { seq: number; value: number; reading: string }>();
  private asked = 0;
  private going = true;
  private writers: Promise<void>[] = [];

  constructor(
    private readonly url: string,
    private readonly job: number,
    private readonly person: Person,
    private readonly cookie: string,
  ) {}

  /** Somebody signed in, by a row and a sealed cookie. */
  static async signIn(db: Knex, person: Person, cookieSecret: string): Promise<string> {
    const sessionId = randomUUID();
    await db('sessions').insert({
      shop_id: person.shopId,
      id: sessionId,
      person_id: person.personId,
      expires_at: db.raw("now() + interval '1 day'"),
    });
    const { shopId, personId } = person;
    return `surrik=${await sealData({ shopId, sessionId, personId }, { password: cookieSecret })}`;
  }

  /** Begins to enter readings, `writers` at once; every fifth is sent twice, and what was not answered again. */
  begin(writers: number): void {
    for (let k = 0; k < writers; k++) this.writers.push(this.write());
  }

  private async write(): Promise<void> {
    while (this.going) {
      const value = 11 + (this.asked++ % 300) / 100;
      const command = {
        id: randomUUID(),
        type: 'reading.keep',
        version: 1,
        baseSeq: 0,
        at: new Date().toISOString(),
        actor: this.person.name,
        payload: {
          id: randomUUID(),
          state: 'idle',
          probe: 'coach-bank.plus',
          ref: 'frame.bay-2',
          status: 'measured',
          value,
          unit: 'V',
          secondsInState: 60,
        },
      };
      const twice = this.asked % 5 === 0;
      for (let sent = 0; ; sent++) {
        const answers = await Promise.all([this.send(command), ...(twice && sent === 0 ? [this.send(command)] : [])]);
        const taken = answers.find((a) => a !== undefined);
        if (taken) {
          this.acknowledged.set(command.id, { seq: taken.seq, value, reading: command.payload.id });
          break;
        }
        if (!this.going && sent > 60) break;
        await new Promise((r) => setTimeout(r, 200));
      }
    }
  }

  private async send(command: object): Promise<{ seq: number } | undefined> {
    try {
      const response = await fetch(`${this.url}/api/commands?job=${this.job}`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', cookie: this.cookie },
        body: JSON.stringify(command),
        signal: AbortSignal.timeout(8000),
      });
      return response.ok ? ((await response.json()) as { seq: number }) : undefined;
    } catch {
      return undefined;
    }
  }

  /** Nothing more is begun; what is on its way is asked for until it is answered. */
  async end(): Promise<void> {
    this.going = false;
    await Promise.all(this.writers);
  }

  /** What the database has of it that it should not, or lacks: nothing, where it keeps what it says. */
  async differences(db: Knex): Promise<string[]> {
    const rows = (await db('commands as c')
      .join('jobs as j', (on) => on.on('j.shop_id', 'c.shop_id').andOn('j.id', 'c.job_id'))
      .where({ 'j.number': this.job, 'j.shop_id': this.person.shopId })
      .orderBy('c.seq')
      .select('c.id', 'c.seq')) as { id: string; seq: number }[];
    const readings = new Map(
      (
        (await db('readings as r')
          .join('jobs as j', (on) => on.on('j.shop_id', 'r.shop_id').andOn('j.id', 'r.job_id'))
          .where({ 'j.number': this.job, 'j.shop_id': this.person.shopId })
          .select('r.id', 'r.value')) as { id: string; value: number }[]
      ).map((r) => [r.id, r.value]),
    );
    const wrong: string[] = [];
    rows.forEach(({ seq }, i) => seq !== i + 1 && wrong.push(`number ${i + 1} is ${seq}`));
    const kept = new Map(rows.map((r) => [r.id, r.seq]));
    if (kept.size !== rows.length) wrong.push(`${rows.length - kept.size} doubled`);
    for (const [id, { seq, value, reading }] of this.acknowledged) {
      if (kept.get(id) !== seq) wrong.push(`${id} was acknowledged as ${seq} and is ${kept.get(id) ?? 'lost'}`);
      if (readings.get(reading) !== value)
        wrong.push(`reading ${reading} was ${value} and is ${readings.get(reading) ?? 'lost'}`);
    }
    return wrong;
  }
}
