import { clsx } from 'clsx';
import { redirect } from 'next/navigation';
import Link from 'next/link';
import { MadeFile } from '@/ui/MadeFile';
import { PrintButton } from '@/ui/PrintButton';
import { appDb } from '@/server/db';
import { currentActor } from '@/server/http';
import { jobSnapshot } from '@/server/job/snapshot';
import { onRun } from '@/server/runs/ask';
import { Refused } from '@/server/actor';
import { jobOfPage } from '../jobOfPage';

/** The owner's card, worked out on the server: the owner's telephone may open it on paper only. */
export default async function CardPage({ params }: { params: Promise<{ number: string }> }) {
  const actor = await currentActor();
  if (!actor) redirect('/sign-in');
  const number = await jobOfPage(params);
  const found = await jobSnapshot(appDb(), actor, number).catch((e: unknown) => {
    if (e instanceof Refused) return undefined;
    throw e;
  });
  if (!found)
    return (
      <main className="plain">
        <h1>No such job</h1>
        <p>There is no job {number} in this shop.</p>
        <Link className="btn" href="/">
          All jobs
        </Link>
      </main>
    );
  const card = await onRun(actor.shopId, 'ownerCard', [found.job, found.shop.settings]).catch((e: unknown) => {
    if (e instanceof Refused) return e;
    throw e;
  });
  if (card instanceof Refused)
    return (
      <main className="plain">
        <h1>Not worked out</h1>
        <p>{card.message}</p>
        <Link className="btn" href={`/jobs/${number}/card`}>
          Try again
        </Link>
        <Link className="btn" href={`/jobs/${number}/prove`}>
          Back to the job
        </Link>
      </main>
    );
  return (
    <main
      className={clsx(
        'report card',
        'max-w-215 mx-auto p-4',
        'max-phone:p-2 print:max-w-none print:p-0 print:text-small-print',
      )}
    >
      <div className="no-print flex flex-wrap gap-2 pb-3">
        <Link className="btn" href={`/jobs/${number}/prove`}>
          Back to the job
        </Link>
        <Link className="btn" href={`/jobs/${number}/report`}>
          Report
        </Link>
        <MadeFile href={`/api/jobs/${number}/card.pdf`}>PDF</MadeFile>
        <PrintButton />
      </div>
      <article
        className={clsx(
          'grid gap-2.75',
          'px-6.5 py-5.5 border-2 border-ink rounded bg-card',
          'max-phone:p-3 max-phone:overflow-x-auto print:gap-1.5 print:p-0 print:border-0 print:bg-white',
        )}
      >
        <header className="flex justify-between gap-4 pb-2 border-b-2 border-ink print:pb-1 max-phone:block">
          <div>
            <h1 className="font-cond font-bold text-display leading-none print:text-title">
              {card.rig}: your batteries
            </h1>
            <p>{card.kind}</p>
          </div>
          <p className="shop text-right max-phone:text-left">
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
          <h2 className="print:text-note">How long</h2>
          <table className="w-full text-fine print:text-small-print">
            <tbody>
              {card.hours.map((h) => (
                <tr key={h.ask}>
                  <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
                    {h.ask}
                  </td>
                  <td className="px-1.5 py-0.75 border-b-1 border-rule leading-tight print:px-1.25 print:py-0.5">
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
        <footer className="grid gap-3.5 text-fine text-ink-2 print:gap-2 print:text-small-print">
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
      <h2 className="print:text-note">{title}</h2>
      <ul className="grid gap-0.75 pl-5 list-disc">
        {list.map((x) => (
          <li key={x}>{x}</li>
        ))}
      </ul>
    </section>
  );
}
