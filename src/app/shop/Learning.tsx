'use client';
/** What the shop's closed jobs say of the assumptions: looked through here, taken over by hand, taken back by hand. */
import { useRef, useState } from 'react';
import { postCases } from '@/client/api';
import { closedJobs, jobOf } from '@/client/closedJobs';
import { engine } from '@/client/engine';
import type { ShopView } from '@/client/useShop';
import { caseFileOf, type CaseFile } from '@/core/learn/caseFile';
import { NO_CASES, together, type Cases } from '@/core/learn/cases';
import { faultWords } from '@/core/learn/faultWords';
import { OTHERS_COUNT, PRIOR_WORTH, priorFactors, spreadFactor } from '@/core/learn/update';
import { DEFAULT_SETTINGS, type Shop } from '@/core/shop/shop';
import { counted } from '@/core/units/counted';
import { inWords } from '@/core/units/vocabulary';

/** Jobs older than these say little of today's shop. */
const MOST_JOBS = 200;
const SHOWN = 10;
/** Factors nearer to one, as logarithm, are left out of the table. */
const WORTH_SHOWING = 0.02;

interface Walk {
  done: number;
  of: number;
}

export function Learning({ shop, view }: { shop: Shop; view: ShopView }) {
  const { learnt, vocabulary } = shop.settings;
  const [own, setOwn] = useState<Cases>();
  const [others, setOthers] = useState<readonly { name: string; file: CaseFile }[]>([]);
  const [walk, setWalk] = useState<Walk>();
  const [trouble, setTrouble] = useState<string>();
  const stopped = useRef(false);

  const look = async () => {
    stopped.current = false;
    setTrouble(undefined);
    let sum = NO_CASES;
    let of = 0;
    try {
      const numbers = await closedJobs(MOST_JOBS);
      of = numbers.length;
      for (const [done, number] of numbers.entries()) {
        if (stopped.current) break;
        setWalk({ done, of });
        const one = await engine().caseOf(await jobOf(number));
        if (one) sum = together(sum, one);
      }
      setOwn(sum);
    } catch (e) {
      setTrouble((e as Error).message);
    }
    setWalk(undefined);
  };
  const takeIn = async (file: File) => {
    setTrouble(undefined);
    try {
      const taken = await postCases(await file.text());
      setOthers((list) => [...list, { name: file.name, file: taken }]);
    } catch (e) {
      setTrouble(`${file.name}: ${(e as Error).message}`);
    }
  };
  const all = others.reduce((sum, o) => together(sum, o.file, OTHERS_COUNT), own ?? NO_CASES);
  const foreign = others.reduce((n, o) => n + o.file.jobs, 0);
  return (
    <section className="grp-box col-span-full" aria-label="What closed jobs teach">
      <h2 className="font-cond font-bold text-figure leading-none">What closed jobs teach</h2>
      <p className="quiet">
        A job that was closed and proved by measurement tells how common its fault is in this shop, and how far sound
        rigs stray. It moves where the search starts; readings end it. Nothing is taken over by itself.
      </p>
      {learnt.jobs + learnt.others > 0 && (
        <p role="status">
          In use since {learnt.on}: {counted(learnt.jobs, 'job')} of this shop
          {learnt.others > 0 && ` and ${learnt.others} of others`}, {Object.keys(learnt.factors).length} faults.{' '}
          <button
            type="button"
            className="text-button"
            onClick={() =>
              view.set({
                learnt: DEFAULT_SETTINGS.learnt,
                likelihoods: {
                  ...shop.settings.likelihoods,
                  spreadFactor: DEFAULT_SETTINGS.likelihoods.spreadFactor,
                },
              })
            }
          >
            Back to what is assumed
          </button>
        </p>
      )}
      <div className="row flex flex-wrap gap-2">
        {walk ? (
          <>
            <progress className="progress" value={walk.done} max={Math.max(1, walk.of)} aria-label="Jobs looked at" />
            <span>
              {walk.done} of {walk.of}
            </span>
            <button type="button" className="btn" onClick={() => (stopped.current = true)}>
              Stop
            </button>
          </>
        ) : (
          <button type="button" className="btn btn-neutral" onClick={() => void look()}>
            Look through the closed jobs
          </button>
        )}
        <label className="btn file">
          Take in another shop’s cases
          <input
            type="file"
            accept="application/json,.json"
            onChange={(e) => {
              const file = e.target.files?.[0];
              e.target.value = '';
              if (file) void takeIn(file);
            }}
          />
        </label>
      </div>
      {trouble && (
        <p className="alert alert-warning alert-outline" role="alert">
          {trouble}
        </p>
      )}
      {others.map((o, i) => (
        <p key={`${o.name} ${i}`} className="quiet">
          {o.name}: {counted(o.file.jobs, 'job')}, each counts for {OTHERS_COUNT} of one’s own (assumed).{' '}
          <button type="button" className="text-button" onClick={() => setOthers(others.filter((x) => x !== o))}>
            Leave it out
          </button>
        </p>
      ))}
      {own?.jobs === 0 && <p>No closed job was proved yet. A repair whose proofs all came right makes one.</p>}
      {all.jobs > 0 && (
        <Taught
          cases={all}
          vocabulary={vocabulary}
          onSave={own && own.jobs > 0 ? () => save(own) : undefined}
          onTake={() =>
            view.set({
              learnt: {
                factors: priorFactors(all),
                jobs: own?.jobs ?? 0,
                others: foreign,
                on: new Date().toISOString().slice(0, 10),
              },
              likelihoods: { ...shop.settings.likelihoods, spreadFactor: spreadFactor(all) },
            })
          }
        />
      )}
    </section>
  );
}

interface TaughtProps {
  cases: Cases;
  vocabulary: Shop['settings']['vocabulary'];
  onSave: (() => void) | undefined;
  onTake(): void;
}

function Taught({ cases, vocabulary, onSave, onTake }: TaughtProps) {
  const factors = priorFactors(cases);
  const rows = Object.entries(cases.faults)
    .map(([key, counts]) => ({ key, ...counts, factor: factors[key]! }))
    .filter((r) => r.seen > 0 || Math.abs(Math.log(r.factor)) > WORTH_SHOWING)
    .sort((a, b) => Math.abs(Math.log(b.factor)) - Math.abs(Math.log(a.factor)))
    .slice(0, SHOWN);
  return (
    <>
      <table className="table table-xs sm:table-md">
        <thead>
          <tr>
            <th>Fault</th>
            <th>Found</th>
            <th>Expected</th>
            <th>Its prior</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((r) => (
            <tr key={r.key}>
              <td>{inWords(vocabulary, faultWords(r.key))}</td>
              <td>{Number(r.seen.toFixed(1))} ×</td>
              <td>{r.expected.toFixed(2)} ×</td>
              <td>× {r.factor.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="quiet">
        Prior × ({PRIOR_WORTH} + found) / ({PRIOR_WORTH} + expected), the mean of a Gamma–Poisson update; {PRIOR_WORTH}{' '}
        is assumed. Of {Object.keys(cases.faults).length} faults, those that move.
        {cases.spread.jobs > 0 &&
          ` Spreads taken wider by ${spreadFactor(cases).toFixed(2)} ×: readings of ` +
            `${counted(Number(cases.spread.jobs.toFixed(1)), 'rig')} put right.`}
      </p>
      <div className="row flex flex-wrap gap-2">
        <button type="button" className="btn btn-neutral" onClick={onTake}>
          Take these over
        </button>
        {onSave && (
          <button type="button" className="btn" onClick={onSave}>
            Save as a case file
          </button>
        )}
      </div>
      {onSave && <p className="quiet">Sums only: no rig, no name, no date is in the file.</p>}
    </>
  );
}

/** Hands the file to the browser. */
function save(cases: Cases): void {
  const text = `${JSON.stringify(caseFileOf(cases), null, 2)}\n`;
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  link.download = 'surrik-cases.json';
  link.click();
  URL.revokeObjectURL(link.href);
}
