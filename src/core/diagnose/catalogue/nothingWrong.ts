/** The hypothesis that the rig works as it was made to. */
export const NOTHING_WRONG = {
  id: 'nothing-wrong',
  name: 'Nothing is wrong with the link',
  prior: 75,
  repair: 'No repair: explain how it works',
} as const;
