/** As much of an open rig document as a truth reads: which pieces there are, what is written on them, how they are joined. */
export interface End {
  part: string;
  terminal: string;
}
export interface DocPart {
  id: string;
  kind: string;
  side: string;
  vehicle: string;
  station: number;
  params?: Readonly<Record<string, { value: number }>>;
  options?: Readonly<Record<string, string>>;
}
export interface DocWire {
  id: string;
  use: string;
  from: End;
  to: End;
  gauge: string;
  length: number;
}
export interface RigDocument {
  vehicles: readonly { id: string; nominalVolts: number }[];
  parts: readonly DocPart[];
  conductors: readonly DocWire[];
  grounds: readonly { id: string; points: readonly { id: string }[] }[];
  bonds: readonly { id: string; from: End; to: End }[];
  reference: End;
}

export const key = ({ part, terminal }: End): string => `${part}.${terminal}`;

/** What is written on a part, or what is usual where nothing is. */
export const written = (part: DocPart, name: string, usual: number): number => part.params?.[name]?.value ?? usual;
