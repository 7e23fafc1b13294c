/** How a wire's ends and splices are made, and which of them do not last on the road. Common practice. */
export const WIRE_ENDS = [
  { id: 'crimped', label: 'Crimped' },
  { id: 'soldered', label: 'Soldered' },
  { id: 'screw', label: 'Screw clamp' },
  { id: 'twist-on', label: 'Twist-on connector', poor: 'twist-on connectors, made for house wiring that never moves' },
  { id: 'tap', label: 'Splice tap', poor: 'a splice tap, which nicks the strands and lets water in' },
  { id: 'two-in-one', label: 'Two wires in one hole', poor: 'two wires in one hole, of which one works loose' },
] as const satisfies readonly { id: string; label: string; poor?: string }[];
export type WireEnds = (typeof WIRE_ENDS)[number]['id'];
