/** All design rules over a rig; the worst first. A rule is a row in one of the tables. */
import { RULE_SETS, USUAL_JURISDICTION } from '../codes';
import { nominalOf, is, isOneOf } from '../parts/kinds';
import type { Rig } from '../rig/schema';
import { partOption, partValue } from '../rig/value';
import type { Sizing } from '../size/sizing';
import { CHARGER_RULES } from './chargers';
import { LINK_RULES } from './links';
import { PROTECTION_RULES } from './protection';
import { THRESHOLD_RULES } from './thresholds';
import { ALUMINUM_RULES } from './aluminum';
import { MONITOR_RULES } from './monitors';
import { SPLICE_RULES } from './splices';
import { TOWED_RULES } from './towed';
import { SEVERITIES, type Finding, type DesignRule, type RuleContext } from './rule';

export const RULES: readonly DesignRule[] = [
  ...PROTECTION_RULES,
  ...THRESHOLD_RULES,
  ...CHARGER_RULES,
  ...LINK_RULES,
  ...TOWED_RULES,
  ...MONITOR_RULES,
  ...ALUMINUM_RULES,
  ...SPLICE_RULES,
];

/** Rules about the kind of link itself: no copper or fuse changes what they see, and they need no sizing. */
const OF_THE_LINK = ['lithium-load-dump', 'fridge-constant', 'fridge-look', 'brake-behind-converter', 'enable-always'];
const UNSIZED: Sizing = {
  runs: [],
  fuses: [],
  chargers: [],
  cutShort: [],
  thresholds: [],
  lockouts: [],
  jurisdiction: USUAL_JURISDICTION,
};

/** What the rules call a danger in the way a rig is linked, whatever it is built of; what only a look can tell is none yet. */
export const linkDangers = (rig: Rig): Finding[] =>
  checkDesign(rig, UNSIZED).filter((f) => OF_THE_LINK.includes(f.rule) && f.severity !== 'look');

/** What the rules see in a rig whose sizing is known. */
export function checkDesign(rig: Rig, sizing: Sizing): Finding[] {
  const context: RuleContext = {
    rig,
    sizing,
    rules: RULE_SETS[sizing.jurisdiction],
    parts: (trait) => rig.parts.filter((p) => (typeof trait === 'string' ? is(p, trait) : isOneOf(p, trait))),
    part: (id) => rig.parts.find((p) => p.id === id),
    option: partOption,
    value: partValue,
    blocks: (part) =>
      nominalOf(
        part,
        rig.vehicles.find((v) => v.id === part.vehicle)!,
      ) / 12,
    on: (part, terminal) =>
      rig.conductors.filter((c) => [c.from, c.to].some((e) => e.part === part && e.terminal === terminal)),
  };
  return RULES.flatMap((rule) =>
    rule.check(context).map((s): Finding => ({
      ...s,
      rule: rule.id,
      severity: rule.severity,
      title: rule.title,
      why: rule.why,
      source: typeof rule.source === 'string' ? rule.source : rule.source(context.rules),
    })),
  ).sort((a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity));
}
