'use client';
/** How a suspect's share came about: the odds before, and what each reading and answer did to them. */
import { NOTHING_WRONG } from '../../core/diagnose/catalogue/nothingWrong';
import { NOT_ON_LIST } from '../../core/diagnose/catalogue/notOnList';
import type { Suspect } from '../../core/diagnose/diagnose';
import { showPercent, showText } from '../../core/units/format';
import { useJobFile, useAnswers } from '../shell/jobPage';
import { Sheet } from '../Dialog';

export function ProbabilityWorking({ suspect, onClose }: { suspect: Suspect; onClose(): void }) {
  const file = useJobFile();
  const answers = useAnswers();
  const clues = [...suspect.for, ...suspect.against].sort((a, b) => Math.abs(b.logOdds) - Math.abs(a.logOdds));
  const { calibration: kept, sort, stop } = answers.diagnosis!;
  const verdict = stop.class;
  const odds = (p: number) =>
    p >= 0.5 ? `${(p / (1 - p)).toFixed(1)} to 1 for` : `${((1 - p) / Math.max(p, 1e-6)).toFixed(1)} to 1 against`;
  return (
    <Sheet title={`How ${showPercent(suspect.probability)} % came about`} onClose={onClose}>
      <p>
        Odds after = odds before × what the readings say. What each reading adds is the change in the odds when it is
        left out and everything else is kept.
      </p>
      <table className="table work">
        <thead>
          <tr>
            <th>Step</th>
            <th>Figure</th>
            <th>From</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <td>Before any reading</td>
            <td>{odds(suspect.prior)}</td>
            <td>how common it is and what the intake says; assumed</td>
          </tr>
          {clues.map((c) => {
            const r = file.job.readings.find((x) => x.id === c.reading);
            return (
              <tr key={c.reading}>
                <td>
                  {c.label}
                  {c.state !== undefined && `, ${file.stateOf(c.state).label.toLowerCase()}`}
                  {c.answer !== undefined && `: ${c.answer}`}
                  {r?.value !== undefined && `: ${showText(r.value, r.unit)}`}
                </td>
                <td>
                  {c.logOdds > 0
                    ? `${Math.min(999, Math.exp(c.logOdds)).toFixed(1)} times likelier`
                    : `${Math.min(999, Math.exp(-c.logOdds)).toFixed(1)} times less likely`}
                </td>
                <td>{c.answer === undefined ? 'measured' : 'seen; how much it tells is assumed'}</td>
              </tr>
            );
          })}
          <tr>
            <td>Now</td>
            <td>{odds(Math.min(0.99, suspect.probability))}</td>
            <td>all readings together</td>
          </tr>
        </tbody>
      </table>
      <p>
        Belief is a mixture of Gaussians, one per fault and severity, over every uncertain number of the rig.{' '}
        {Number((100 * file.settings.likelihoods.blunderShare).toFixed(1))} % of readings are taken to be slips.
        {suspect.class !== NOTHING_WRONG.id && ` Repair: ${suspect.repair.toLowerCase()}.`}
      </p>
      <p>
        {Math.round(100 * kept.reserve)} % is kept back whatever the readings say: of {kept.verdicts} verdicts on{' '}
        {kept.of}, of a model that shares nothing with this one, {kept.right} were right ({kept.date}); before this
        version {kept.earlier.right} of {kept.earlier.verdicts}, which count half. It stands with “{NOT_ON_LIST.name}
        ”.
      </p>
      {sort && suspect.class === verdict && (
        <p>
          Of {sort.verdicts} {sort.of}, {sort.right} were right ({sort.date}): this one is claimed at{' '}
          {suspect.class === NOTHING_WRONG.id ? 'no less' : 'no more'} than {showPercent(sort.share)} %.
        </p>
      )}
    </Sheet>
  );
}
