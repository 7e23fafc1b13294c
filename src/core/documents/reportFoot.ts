/** What stands under every report. */
export const REPORT_FOOT =
  'Bands are computed for a rig like this with nothing wrong, from its parts, cables and joints; ' +
  'most figures of the rig are assumed, not measured. Boost is for a few seconds: never ' +
  'wedge the switch. Local codes, the vehicle maker’s guide and licensed practice come first.';
