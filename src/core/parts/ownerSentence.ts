/** What the owner's card says of a part: sentences, some with the part's own figures. */

/** The part a sentence is about. */
export interface Told {
  name: string;
  value(param: string): number;
}

/** A sentence of the owner's card. */
export interface OwnerSentence {
  /** Only with this choice of the part. */
  option?: { name: string; is: readonly string[] };
  /** Only where nothing on the rig decides when the link closes. */
  alone?: true;
  says: string | ((part: Told, units: { temperature: 'C' | 'F' }) => string);
}

export interface OwnerSentences {
  /** How the batteries are joined by it. */
  works: readonly OwnerSentence[];
  /** What the owner looks at or keeps in mind. */
  care: readonly OwnerSentence[];
}

export const UNTOLD: OwnerSentences = { works: [], care: [] };
