/**
 * The hypothesis that something is wrong which no row of the catalogue describes. It predicts what a sound rig would
 * read, but some of its readings may be anywhere: it wins when every known fault fits badly.
 */
export const NOT_ON_LIST = {
  id: 'not-on-list',
  name: 'Something that is not on this list',
  prior: 10,
  repair: 'Look by hand: none of the listed faults fits these readings',
  shows: 'readings that no listed fault explains together',
} as const;
