/** The panels on the left, from the top down. */
import { ledgerOf, topParts } from '@kadrel/core';
import type { SessionState } from '../../session/store.ts';
import { Ledger } from './Ledger.tsx';
import { Parts } from './Parts.tsx';
import { Variables } from './Variables.tsx';

export interface PanelDeclaration {
  readonly id: string;
  readonly title: string;
  /** How many things it holds. */
  readonly count: (state: SessionState) => number;
  /** Of the height of all, %. */
  readonly share: number;
  readonly Body: React.ComponentType;
}

export const PANELS: readonly PanelDeclaration[] = [
  {
    id: 'parts',
    title: 'Parts',
    count: ({ document }) => topParts(document).length,
    share: 50,
    Body: Parts,
  },
  {
    id: 'variables',
    title: 'Variables',
    count: ({ document }) => Object.keys(document.variables).length,
    share: 17,
    Body: Variables,
  },
  {
    id: 'ledger',
    title: 'Ledger',
    count: ({ edits }) => ledgerOf(edits).length,
    share: 33,
    Body: Ledger,
  },
];
