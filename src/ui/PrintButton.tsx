'use client';
/** Prints the page it stands on. */
import { Printer } from 'lucide-react';

export function PrintButton() {
  return (
    <button type="button" className="btn btn-accent ml-auto" onClick={() => window.print()}>
      <Printer size={20} aria-hidden="true" />
      Print
    </button>
  );
}
