/**
 * Who of a shop may do what: one table. Use-cases ask it before they do anything, screens before they offer it, tests
 * go through it row by row. What a person may do is a matter of the shop's own order: common practice, no source.
 */
export const ROLES = [
  { id: 'owner', label: 'Owner', says: 'everything, and who works here' },
  { id: 'lead', label: 'Lead', says: 'everything on a job and in the settings; takes back what others decided' },
  { id: 'technician', label: 'Technician', says: 'measures, decides, repairs and signs' },
  { id: 'apprentice', label: 'Apprentice', says: 'measures and describes; decides and signs nothing' },
  { id: 'front-desk', label: 'Front desk', says: 'customers, bookings, approvals, parts; measures nothing' },
  { id: 'viewer', label: 'Viewer', says: 'looks and prints; enters nothing' },
] as const;
export type Role = (typeof ROLES)[number]['id'];

/** Kinds of doing. A command, a route or a button needs one of them. */
export const ACTS = {
  look: {
    says: 'look at jobs and print them',
    may: ['owner', 'lead', 'technician', 'apprentice', 'front-desk', 'viewer'],
  },
  desk: {
    says: 'write notes, bookings, approvals, parts and customers',
    may: ['owner', 'lead', 'technician', 'apprentice', 'front-desk'],
  },
  open: { says: 'open a job', may: ['owner', 'lead', 'technician', 'apprentice', 'front-desk'] },
  work: { says: 'measure, look, and describe the rig', may: ['owner', 'lead', 'technician', 'apprentice'] },
  decide: { says: 'decide: verdict, repair, link, plan, what is set aside', may: ['owner', 'lead', 'technician'] },
  sign: { says: 'sign a record', may: ['owner', 'lead', 'technician'] },
  import: { says: 'take in job files', may: ['owner', 'lead', 'technician'] },
  overrule: { says: 'take back what another decided or signed', may: ['owner', 'lead'] },
  settings: { says: 'change the shop’s settings and instruments', may: ['owner', 'lead'] },
  people: { says: 'say who works here', may: ['owner'] },
} as const satisfies Record<string, { says: string; may: readonly Role[] }>;
export type Act = keyof typeof ACTS;

export const may = (role: Role, act: Act): boolean => (ACTS[act].may as readonly Role[]).includes(role);

/** What a shop wants of a signature. */
export const SIGNING = [
  { id: 'technician', label: 'Technician' },
  { id: 'lead', label: 'Lead' },
] as const;
export type Signing = (typeof SIGNING)[number]['id'];

/** What signing needs in a shop: a lead’s signature is an act of those who may overrule. */
export const actOfSigning = (signing: Signing): Act => (signing === 'lead' ? 'overrule' : 'sign');

const labels = (act: Act): string[] => ROLES.filter((r) => may(r.id, act)).map((r) => r.label.toLowerCase());

/** Who may, in words: `a technician, a lead or the owner`, the least first. */
export function whoMay(act: Act): string {
  const names = labels(act)
    .reverse()
    .map((l) =>
      l === 'owner' ? 'the owner' : l === 'front desk' ? 'the front desk' : `${/^[aeiou]/.test(l) ? 'an' : 'a'} ${l}`,
    );
  return names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} or ${names.at(-1)!}`;
}
