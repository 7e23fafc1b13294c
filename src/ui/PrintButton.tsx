'use client';
/** Prints the page it stands on. */
import { Printer } from 'lucide-react';

export function PrintButton() {
  return (
    <button type="button" className="bx go ml-auto" onClick={() => window.print()}>
      <Printer size={20} aria-hidden="true" />
      Print
    </button>
  );
}
