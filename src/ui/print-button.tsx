import { Printer } from 'lucide-react';

/** Prints the page; not on the paper itself. */
export const PrintButton = () => (
  <button
    type="button"
    className="choice inline-flex items-center gap-2 font-semibold print:hidden"
    onClick={() => window.print()}
  >
    <Printer size={18} aria-hidden="true" /> Print
  </button>
);
