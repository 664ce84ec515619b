/** The panels on the left, from the top down. */
import { ledgerOf, topParts } from '@kadrel/core';
import type { Session, SessionState } from '../../session/store.ts';
import { missedIn } from '../../session/fitState.ts';
import { driftedIn } from '../../session/docks.ts';
import { Docks } from './Docks.tsx';
import { Ledger } from './Ledger.tsx';
import { Measures } from './Measures.tsx';
import { Parts } from './Parts.tsx';
import { Sheets } from './Sheets.tsx';
import { Variables } from './Variables.tsx';

/** A panel: its title, what it counts, and what is in it. */
export interface PanelDeclaration {
  readonly id: string;
  readonly title: string;
  /** How many things it holds. */
  readonly count: (state: SessionState) => number;
  /** How many of them are wrong: a badge tells it, also while the panel is folded. */
  readonly faults?: (session: Session) => number;
  /** Folded until it holds something. */
  readonly isFoldedWhenEmpty?: true;
  /** Of the height of all, %. */
  readonly share: number;
  readonly Body: React.ComponentType;
}

/** From the top down. */
export const PANELS: readonly PanelDeclaration[] = [
  {
    id: 'parts',
    title: 'Parts',
    count: ({ document }) => topParts(document).length,
    share: 32,
    Body: Parts,
  },
  {
    id: 'variables',
    title: 'Variables',
    count: ({ document }) => Object.keys(document.variables).length,
    share: 14,
    Body: Variables,
  },
  {
    id: 'measures',
    title: 'Measures',
    count: ({ document: { measures, fits } }) => Object.keys(measures).length + Object.keys(fits).length,
    faults: (session) => missedIn(session.store.getState().fit.report),
    isFoldedWhenEmpty: true,
    share: 10,
    Body: Measures,
  },
  {
    id: 'sheets',
    title: 'Sheets',
    count: ({ document }) => Object.keys(document.sheets).length,
    share: 12,
    Body: Sheets,
  },
  {
    id: 'docks',
    title: 'Joints',
    count: ({ document }) => Object.keys(document.joints).length,
    faults: (session) => driftedIn(session.docksNow().report).length,
    share: 12,
    Body: Docks,
  },
  {
    id: 'ledger',
    title: 'Ledger',
    count: ({ edits }) => ledgerOf(edits).length,
    share: 20,
    Body: Ledger,
  },
];
