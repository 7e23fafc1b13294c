'use client';
/** Before there is anything to prove: what this very rig will have to read once it is right. */
import { useQuery } from '@tanstack/react-query';
import { midSentence, showBand } from '../../core/units/format';
import { useJobFile, useAnswers } from '../shell/jobPage';

export function WhatWillBeProved() {
  const { described, job, epoch, stateOf, words } = useJobFile();
  const { expect } = useAnswers();
  const { data: proofs } = useQuery({
    queryKey: ['will-be-proved', job.number, epoch, described.parts.length, described.conductors.length],
    queryFn: () => expect(described),
    staleTime: 60_000,
  });
  if (!proofs)
    return <p className="waiting py-2 text-note text-ink-2">Working out what this rig will have to read …</p>;
  const states = [...new Set(proofs.map((p) => p.state))];
  return (
    <section className="w-full" aria-label="What will be measured">
      <h3 className="font-cond text-xl font-bold">What will be measured of this rig</h3>
      <table className="table">
        <tbody>
          {states.map((state) => (
            <tr key={state} className="border-rule align-top">
              <th scope="row" className="w-2/5 text-base font-semibold text-ink">
                {stateOf(state).label}
              </th>
              <td className="text-base">
                <ul className="m-0 grid list-none gap-0.5 p-0">
                  {proofs
                    .filter((p) => p.state === state)
                    .map((p) => (
                      <li key={`${p.probe}${p.ref}`} className="flex flex-wrap justify-between gap-x-3">
                        <span>
                          {p.label}, {midSentence(words(p.name))}
                        </span>
                        <b className="font-cond text-lg whitespace-nowrap">
                          {showBand(p.band.lo, p.band.hi, p.band.unit)}
                        </b>
                      </li>
                    ))}
                </ul>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
