/** What speaks for a link and what against it, in whole sentences for the customer. */
import { HOT_LIMIT_CELSIUS, NO_MARGIN_SHARE, percent, SPARED_CHARGE } from './criteria';
import type { CandidateOutcome } from './outcome';

export interface Reason {
  good: boolean;
  says: string;
}

/** How full the bank is, against the rig as it is. @param leave the rig left alone; absent where it is what is picked. */
function chargeReasons(o: CandidateOutcome, leave: CandidateOutcome | undefined): Reason[] {
  const reasons: Reason[] = [];
  if (leave) {
    const gain = Math.round((o.arrives - leave.arrives) * 100);
    reasons.push({
      good: gain >= 0,
      says:
        gain > 1
          ? `The bank arrives at ${percent(o.arrives)} instead of ${percent(leave.arrives)}.`
          : `The bank arrives at ${percent(o.arrives)}, about as it does now.`,
    });
  } else reasons.push({ good: o.arrives >= 0.7, says: `The bank arrives at ${percent(o.arrives)}.` });
  if (leave && o.lowest > leave.lowest + 0.05)
    reasons.push({
      good: true,
      says: `At its lowest the bank is at ${percent(o.lowest)} instead of ${percent(leave.lowest)}.`,
    });
  else if (o.lowest < SPARED_CHARGE / 2)
    reasons.push({
      good: false,
      says: `The bank falls to ${percent(o.lowest)} on the way: less load, or a larger bank.`,
    });
  return reasons;
}

/** What the engine's side has of it: the alternator's margin and the start. */
function engineReasons({ alternator, start }: CandidateOutcome): Reason[] {
  const reasons: Reason[] = [];
  if (alternator) {
    const warm = alternator.hottest > HOT_LIMIT_CELSIUS;
    reasons.push({
      good: !warm && alternator.idleShare < NO_MARGIN_SHARE,
      says: `The alternator gives up to ${
        alternator.idleShare > 0
          ? `${percent(alternator.idleShare)} of what it can at idle`
          : `${percent(alternator.roadShare)} of what it can under way`
      } and reaches about ${alternator.hottest.toFixed(0)} °C${warm ? `, above ${HOT_LIMIT_CELSIUS} °C` : ''}.`,
    });
  }
  if (start)
    reasons.push({
      good: start.starts,
      says: start.starts
        ? 'The engine starts every time on this use.'
        : `The engine would not start ${start.when}: ${start.volts.toFixed(1)} V under the starter, ` +
          `${start.limit.toFixed(1)} V wanted. A battery disconnect, or a maintainer where there is shore power, keeps it up.`,
    });
  return reasons;
}

/** What the owner has to know beside: what is won on shore power, what is lost, what is asked of the driver. */
function ownerReasons(o: CandidateOutcome, hadBoost: boolean): Reason[] {
  const against = (list: readonly string[]): Reason[] => list.map((says) => ({ good: false, says }));
  const shore: Reason[] =
    o.startOnShore === undefined
      ? []
      : [
          o.startOnShore
            ? { good: true, says: 'On shore power the start battery is kept up as well.' }
            : {
                good: false,
                says: 'On shore power the start battery gets nothing: drive it or give it a maintainer.',
              },
        ];
  return [
    ...against(o.starves.map((s) => `${s.says} Size it before it is built.`)),
    ...shore,
    ...against([
      ...(o.boost === 'none' && hadBoost
        ? ['Boost is lost: the engine can no longer be started from the other bank.']
        : []),
      ...o.profiles.filter((x) => !x.ok).map((p) => `${p.name} ${p.says}.`),
      ...o.cautions,
      ...(o.handsOff ? [] : ['The driver has to switch it on and off.']),
    ]),
  ];
}

/** @param leave the rig left alone; absent where it is what is judged. */
export const reasonsFor = (o: CandidateOutcome, leave: CandidateOutcome | undefined, hadBoost: boolean): Reason[] => [
  ...chargeReasons(o, leave),
  ...engineReasons(o),
  ...ownerReasons(o, hadBoost),
];
