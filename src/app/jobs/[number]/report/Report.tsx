'use client';
/** One page that says what was wrong, how it was shown, and that it is right now. */
import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { Printer } from 'lucide-react';
import Link from 'next/link';
import { engine, namedRig } from '@/client/engine';
import { useJob } from '@/client/useJob';
import { jobEvidence } from '@/core/formats/evidence';
import { standingAnswers, standingReadings, type Job, type Reading } from '@/core/formats/job';
import { operatingState } from '@/core/operate/states';
import { judge, type Band, type Verdict } from '@/core/probe/judge';
import { showBand, showPercent, showText } from '@/core/units/format';
import { Sign } from '@/ui/strip/glyphs';

interface Line {
  reading: Reading;
  label: string;
  name: string;
  band: Band | undefined;
  verdict: Verdict | undefined;
  clue: string | undefined;
}

/** Everything the page computes: bands of the readings, clues of the verdict, proofs. */
async function compute(job: Job) {
  const verdict = job.verdicts.findLast((v) => !v.withdrawn);
  // The rig as it was when the verdict was found: it may have been changed since it came in.
  const standing = job.revisions.filter((r) => !r.withdrawn && r.kind !== 'proposed');
  const found = standing.find((r) => r.epoch === verdict?.epoch) ?? standing[0]!;
  const repair = job.repairs.findLast((r) => !r.withdrawn);
  const built = repair && job.revisions.find((r) => r.id === repair.revision);
  const rig = namedRig(found);
  const told = standingReadings(job, verdict?.epoch ?? found.epoch).filter((r) => r.status === 'measured');
  const bands = await engine().bandsOf(rig, told.map((r) => ({ state: r.state, probe: r.probe, ...(r.ref === undefined ? {} : { ref: r.ref }) })));
  const diagnosis = await engine().diagnose(rig, job.complaint.codes, jobEvidence(job, verdict?.epoch ?? found.epoch), standingAnswers(job, verdict?.epoch ?? found.epoch), { state: 'rested' });
  const clues = diagnosis.suspects.find((s) => s.fault === verdict?.fault);
  const label = (key: string) =>
    found.doc.probes.find((p) => p.key === key)?.label ??
    found.doc.grounds.flatMap((g) => g.points.map((p) => [`${g.id}.${p.id}`, p.label] as const)).find(([k]) => k === key)?.[1] ??
    key;
  const lines: Line[] = told.map((reading, i) => {
    const band = bands[i];
    const clue = [...(clues?.for ?? []), ...(clues?.against ?? [])].find((c) => c.reading === reading.id);
    return {
      reading,
      label: label(reading.probe),
      name: `${found.doc.probes.find((p) => p.key === reading.probe)?.name ?? reading.probe}${reading.ref && reading.ref !== job.blackLead ? ` to ${label(reading.ref)}` : ''}`,
      band,
      verdict: band && reading.value !== undefined ? judge(reading.value, band) : undefined,
      clue: clue && `${clue.logOdds > 0 ? 'points at it' : 'speaks against it'}, ${clue.strength}`,
    };
  });
  const value = (r: Reading) => ({ state: r.state, probe: r.probe, ...(r.ref === undefined ? {} : { ref: r.ref }), value: r.value! });
  const proofs = built
    ? await engine().proofs(
        namedRig(built),
        told.map(value),
        standingReadings(job, built.epoch).filter((r) => r.status === 'measured').map(value),
      )
    : [];
  return { found, verdict, repair, lines, proofs, shows: clues?.shows };
}

export function Report({ number }: { number: number }) {
  const view = useJob(number);
  const { job } = view;
  const result = useQuery({
    queryKey: ['report', number, job?.readings.length, job?.readings.filter((r) => r.retracted).length, job?.verdicts.length, job?.repairs.length, job?.status],
    queryFn: () => compute(job!),
    enabled: job !== undefined,
    staleTime: Infinity,
  });
  if (view.error && !job) return <p className="boot" role="alert">{view.error.message}</p>;
  if (result.error) return <p className="boot" role="alert">The report could not be computed: {(result.error as Error).message}. Reload to try again.</p>;
  if (!job || !result.data) return <p className="boot" role="status">Writing the report of job {number} …</p>;
  const { found, verdict, repair, lines, proofs, shows } = result.data;
  const right = proofs.length > 0 && proofs.every((p) => p.after?.verdict === 'ok');
  const missing = proofs.filter((p) => !p.after).length;
  const when = (at: string) => format(new Date(at), 'd MMM yyyy, HH:mm');
  return (
    <main className="report">
      <div className="report-bar no-print">
        <Link className="bx" href={`/jobs/${number}/${job.status === 'done' ? 'prove' : 'readings'}`}>
          Back to the job
        </Link>
        <Link className="bx" href="/">
          All jobs
        </Link>
        <button type="button" className="bx go" onClick={() => window.print()}>
          <Printer size={20} aria-hidden="true" />
          Print
        </button>
      </div>
      <article>
        <header>
          <div>
            <h1>
              Job {job.number}, {found.doc.name}
            </h1>
            <p>
              {found.doc.kind}. Taken in {when(found.at)}.
            </p>
          </div>
          <p className="shop">
            <b>{view.shop}</b>
            <br />
            Report of {format(new Date(), 'd MMM yyyy')}
          </p>
        </header>
        <p className={`outcome ${right ? 'good' : ''}`}>
          {right
            ? 'Found, put right, and proven right by measurement.'
            : repair
              ? missing > 0
                ? `Repaired; ${missing} proof ${missing === 1 ? 'reading' : 'readings'} still to take.`
                : 'Repaired, but not every proof reading is in its band: not proven.'
              : verdict
                ? 'Found; not yet repaired.'
                : 'Not yet found.'}
        </p>
        <section>
          <h2>Complaint</h2>
          <p>{job.complaint.words}</p>
        </section>
        <section>
          <h2>What was wrong</h2>
          {verdict ? (
            <p>
              <b>{verdict.name}.</b> {shows && `It shows when ${shows}.`} Confidence {showPercent(verdict.probability)} % when declared by {verdict.by}, {when(verdict.at)}
              {verdict.settled ? '; no further test was worth its minutes.' : '; the technician decided with questions still open.'}
            </p>
          ) : (
            <p>No verdict yet.</p>
          )}
        </section>
        <section>
          <h2>How it was shown</h2>
          <table>
            <thead>
              <tr>
                <th>Probe</th>
                <th>Rig was</th>
                <th className="num">Reading</th>
                <th className="num">Healthy rig</th>
                <th>Says</th>
              </tr>
            </thead>
            <tbody>
              {lines.map((l) => (
                <tr key={l.reading.id}>
                  <td>
                    <b>{l.label}</b> {l.name}
                  </td>
                  <td>{operatingState(l.reading.state).label}</td>
                  <td className="num">
                    {l.verdict && <Sign verdict={l.verdict} size={13} />} {showText(l.reading.value!, l.reading.unit)}
                  </td>
                  <td className="num">{l.band ? showBand(l.band.lo, l.band.hi, l.band.unit) : 'no band'}</td>
                  <td>{l.clue ?? ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
        {repair && (
          <section>
            <h2>What was done</h2>
            <p>
              {repair.did} <span className="quiet">{repair.by}, {when(repair.at)}.</span>
            </p>
          </section>
        )}
        {proofs.length > 0 && (
          <section>
            <h2>{right ? 'It is right now' : 'Proof after the repair'}</h2>
            <table>
              <thead>
                <tr>
                  <th>Probe</th>
                  <th>Rig was</th>
                  <th className="num">Before</th>
                  <th className="num">After</th>
                  <th className="num">Healthy rig</th>
                  <th>Why</th>
                </tr>
              </thead>
              <tbody>
                {proofs.map((p) => (
                  <tr key={`${p.state}${p.probe}${p.ref}`}>
                    <td>
                      <b>{p.label}</b> {p.name}
                    </td>
                    <td>{operatingState(p.state).label}</td>
                    <td className="num">{p.before ? showText(p.before.value, p.band.unit) : 'not taken'}</td>
                    <td className="num">
                      {p.after ? (
                        <>
                          <Sign verdict={p.after.verdict} size={13} /> {showText(p.after.value, p.band.unit)}
                        </>
                      ) : (
                        'to take'
                      )}
                    </td>
                    <td className="num">{showBand(p.band.lo, p.band.hi, p.band.unit)}</td>
                    <td>{p.why}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
        )}
        <footer>
          <p>
            Bands are computed for a rig like this with nothing wrong, from its parts, cables and joints; most figures of the rig are assumed, not measured. Boost is for a few seconds: never wedge the switch. Local codes, the vehicle maker’s guide and licensed practice come first.
          </p>
          <p className="signline">
            <span>Technician</span>
            <span>Date</span>
          </p>
        </footer>
      </article>
    </main>
  );
}
