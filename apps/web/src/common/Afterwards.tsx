import { useDeferredValue, type ReactNode } from 'react';

/** What it holds is drawn after all that stands beside it, and in pieces, between which the page answers. */
export function Afterwards({ children }: { readonly children: ReactNode }) {
  return useDeferredValue(true, false) ? children : null;
}
