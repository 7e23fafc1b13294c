import { redirect } from 'next/navigation';
import Link from 'next/link';
import { MadeFile } from '@/ui/MadeFile';
import { PrintButton } from '@/ui/PrintButton';
import { appDb } from '@/server/db';
import { currentActor } from '@/server/http';
import { jobSnapshot } from '@/server/job/snapshot';
import { onPaper } from '@/server/pdf/client';
import { Refused } from '@/server/actor';

/** The owner's card, worked out on the server: the owner's telephone may open it on paper only. */
export default async function CardPage({ params }: { params: Promise<{ number: string }> }) {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  const number = Number((await params).number);
  const found = await jobSnapshot(appDb(), actor, number).catch((e: unknown) => {
    if (e instanceof Refused) return undefined;
    throw e;
  });
  if (!found)
    return (
      <main className="plain">
        <h1>No such job</h1>
        <p>There is no job {number} in this shop.</p>
        <Link className="bx" href="/">
          All jobs
        </Link>
      </main>
    );
  const card = await onPaper(actor.shopId, (paper) => paper.ownerCard(found.job, found.shop.settings)).catch(
    (e: unknown) => {
      if (e instanceof Refused) return e;
      throw e;
    },
  );
  if (card instanceof Refused)
    return (
      <main className="plain">
        <h1>Not worked out</h1>
        <p>{card.message}</p>
        <Link className="bx" href={`/jobs/${number}/card`}>
          Try again
        </Link>
        <Link className="bx" href={`/jobs/${number}/prove`}>
          Back to the job
        </Link>
      </main>
    );
  return (
    <main className="report card">
      <div className="report-bar no-print">
        <Link className="bx" href={`/jobs/${number}/prove`}>
          Back to the job
        </Link>
        <Link className="bx" href={`/jobs/${number}/report`}>
          Report
        </Link>
        <MadeFile href={`/api/jobs/${number}/card.pdf`}>PDF</MadeFile>
        <PrintButton />
      </div>
      <article>
        <header>
          <div>
            <h1>{card.rig}: your batteries</h1>
            <p>{card.kind}</p>
          </div>
          <p className="shop">
            <b>{found.shop.name}</b>
            <br />
            Job {number}
          </p>
        </header>
        {(
          [
            ['How it works', card.works],
            ['Boost', card.boost],
          ] as const
        ).map(([title, list]) => list.length > 0 && <Section key={title} title={title} list={list} />)}
        {card.lamps.length > 0 && (
          <section>
            <h2>Lamps</h2>
            <table>
              <tbody>
                {card.lamps.map((l) => (
                  <tr key={`${l.unit}${l.shows}`}>
                    <td>{l.unit}</td>
                    <td>
                      <b>{l.shows}</b>
                    </td>
                    <td>{l.means}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <section>
          <h2>How long</h2>
          <table>
            <tbody>
              {card.hours.map((h) => (
                <tr key={h.ask}>
                  <td>{h.ask}</td>
                  <td>
                    <b>{h.answer}</b>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet">{card.taken}</p>
        </section>
        <Section title="Look for" list={card.look} />
        <Section title="Never" list={card.never} />
        {card.settings.length > 0 && <Section title="As it is set" list={card.settings} />}
        <footer>
          <p>
            Keep this card in the vehicle. Local codes and the vehicle maker’s guide come first; anything that smells,
            smokes or swells is for the shop.
          </p>
        </footer>
      </article>
    </main>
  );
}

function Section({ title, list }: { title: string; list: readonly string[] }) {
  return (
    <section>
      <h2>{title}</h2>
      <ul className="card-list">
        {list.map((x) => (
          <li key={x}>{x}</li>
        ))}
      </ul>
    </section>
  );
}
