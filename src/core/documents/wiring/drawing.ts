/** A drawing as shapes in millimetres: what a page, an SVG file and a PDF each set in their own way. */
export type Shape =
  | {
      kind: 'line';
      points: readonly (readonly [x: number, y: number])[];
      width: number;
      dash?: readonly number[];
      white?: boolean;
    }
  | { kind: 'box'; x: number; y: number; w: number; h: number; width: number; white?: boolean; round?: number }
  | {
      kind: 'text';
      x: number;
      y: number;
      text: string;
      size: number;
      anchor: 'start' | 'middle' | 'end';
      bold?: boolean;
      /** Runs upward. */ up?: boolean;
    }
  | { kind: 'dot'; x: number; y: number; r: number };

export interface Drawing {
  width: number;
  height: number;
  shapes: Shape[];
  title: string;
}

/** A row of the schedule beside the drawing. */
export interface WireRow {
  wire: string;
  name: string;
  use: 'feed' | 'return' | 'control';
  from: string;
  to: string;
  gauge: string;
  length: string;
}

export interface Wiring {
  drawing: Drawing;
  wires: WireRow[];
  grounds: { ground: string; name: string; place: string }[];
}

/** mm a text takes: narrow sans serif, measured generously. */
export const textWidth = (text: string, size: number): number => text.length * size * 0.47;
