/** What a session holds: plain data, replaced whole, never changed in place. */
import {
  applyEdit,
  ledgerOf,
  visibleParts,
  type Edit,
  type ItemId,
  type KadrelDocument,
  type SnapKind,
} from '@kadrel/core';
import type { HostState, PrebuiltSolids } from '@kadrel/kernel';
import type { Built } from './built.ts';
import type { BuiltPreview } from './builtPreview.ts';
import type { SelectedPlaces } from './places.ts';
import { readFrames, type Frames } from './frames.ts';
import { FIRST_MANNER, FIRST_SNAPS, type Manner } from './manner.ts';
import type { Resumed } from './resume.ts';
import type { SaveReport } from './saveQueue.ts';
import type { Left, Shelf } from './shelf.ts';
import { NO_FIT, type FitState } from './fitState.ts';
import type { Statement } from './statement.ts';

/** Everything that is known of one open project. */
export interface SessionState {
  readonly projectId: string;
  readonly name: string;
  readonly author: string;
  readonly document: KadrelDocument;
  readonly edits: readonly Edit[];
  /** How many edits came before those: the ledger is fetched in stretches. */
  readonly earlier: number;
  readonly selection: readonly ItemId[];
  /** Faces, edges and corners of the one selected part. */
  readonly places: SelectedPlaces | null;
  /** The group that one works in; what is outside is dimmed. */
  readonly openGroup: ItemId | null;
  /** The member of a pattern that was clicked last, while the pattern is selected. */
  readonly member: { readonly part: ItemId; readonly label: string } | null;
  /** The drawing sheet that is shown instead of the views. */
  readonly openSheet: ItemId | null;
  /** The view, the dimension or the note that is selected on it. */
  readonly sheetEntry: ItemId | null;
  /** Clicks leave members of this pattern out, and put them back. */
  readonly omitting: ItemId | null;
  readonly built: Built;
  readonly kernel: HostState;
  readonly save: SaveReport;
  readonly statement: Statement | null;
  /** What it would come to, where that is built before it is carried out. */
  readonly builtPreview: BuiltPreview | null;
  /** What a step of a part has made, while its row is pointed at. */
  readonly stepShown: StepShown | null;
  /** How parts stand to one another. */
  readonly fit: FitState;
  /** The racks are shown in the place of the Spec. */
  readonly isRackOpen: boolean;
  /** A part is being dragged from a rack: where the button comes up, there it goes. */
  readonly isCarrying: boolean;
  /** A verb is looked for while a statement is still at work. */
  readonly findsAhead: boolean;
  /** The last statement that was left before it was carried out, with what had been typed into it. */
  readonly setAside: Statement | null;
  /** Looking at the model as it was after this many statements of the ledger; null for now. */
  readonly lookingAt: number | null;
  readonly snapKinds: ReadonlySet<SnapKind>;
  readonly seeThrough: boolean;
  readonly manner: Manner;
  /** The one kind that the next pick catches. */
  readonly forced: SnapKind | null;
  /** What was selected before. */
  readonly lastSelection: readonly ItemId[];
  /** Frames of Move, Turn and Resize. */
  readonly frames: Frames;
  /** Nothing can be dragged: the pointer only selects and looks. */
  readonly isSelectOnly: boolean;
  /** The plane that is drawn on, as it is typed; nothing but the one who draws changes it. */
  readonly plane: unknown;
  readonly arePinsShown: boolean;
  readonly areDocksShown: boolean;
  /** Items whose docks are not shown. */
  readonly hiddenDocks: readonly ItemId[];
  /** Drags go to points of the grid, or by whole steps from where they began. */
  readonly stepsFrom: 'grid' | 'start';
  /** Size of the grips on screen; 1 is the usual one. */
  readonly gripScale: number;
  /** What was done last without a statement of its own in the bar, for those who listen to the screen. */
  readonly announced: string;
}

/** Faces that a step has made, by the corners of their facets in the part’s own frame, mm. */
export interface StepShown {
  readonly part: ItemId;
  readonly corners: readonly number[];
  /** What lies within solids is shown through them. */
  readonly seen?: 'through';
}

/** What is needed to open a project. */
export interface OpenedSession {
  readonly projectId: string;
  readonly name: string;
  readonly author: string;
  readonly document: KadrelDocument;
  readonly revision: number;
  /** The latest ones up to the revision. */
  readonly edits: readonly Edit[];
  readonly shelf: Shelf;
  /** What former visits left unsaved. */
  readonly left: Left | undefined;
  /** What need not be built. */
  readonly prebuilt: PrebuiltSolids | undefined;
}

const NOTHING_BUILT: Built = {
  of: null,
  parts: {},
  wholes: {},
  failures: [],
  notices: [],
  factsOf: () => undefined,
};

/** What is in hand, in sight and in force before anything is done. */
const AT_REST = {
  selection: [],
  places: null,
  openGroup: null,
  member: null,
  fit: NO_FIT,
  omitting: null,
  openSheet: null,
  sheetEntry: null,
  built: NOTHING_BUILT,
  kernel: { at: 'starting' },
  statement: null,
  builtPreview: null,
  isRackOpen: false,
  isCarrying: false,
  stepShown: null,
  findsAhead: false,
  setAside: null,
  lookingAt: null,
  snapKinds: new Set(FIRST_SNAPS),
  seeThrough: false,
  manner: FIRST_MANNER,
  forced: null,
  lastSelection: [],
  isSelectOnly: false,
  plane: 'plan',
  arePinsShown: true,
  areDocksShown: true,
  hiddenDocks: [],
  stepsFrom: 'start',
  gripScale: 1,
  announced: '',
} satisfies Partial<SessionState>;

/** What a session begins with. */
export const firstState = (opened: OpenedSession, resumed: Resumed): SessionState => ({
  ...AT_REST,
  projectId: opened.projectId,
  name: opened.name,
  author: opened.author,
  document: resumed.document,
  edits: [...opened.edits, ...resumed.edits],
  earlier: opened.revision - opened.edits.length,
  save: { state: 'saved', revision: opened.revision, aside: [], isKept: true, wantsSignIn: false },
  frames: readFrames(localStorage, opened.projectId),
});

/** The document on screen: the present one, or that of an earlier line of the ledger. */
export function shownDocument({
  document,
  edits,
  lookingAt,
}: Pick<SessionState, 'document' | 'edits' | 'lookingAt'>): KadrelDocument {
  if (lookingAt === null) return document;
  return ledgerOf(edits)
    .slice(lookingAt)
    .reverse()
    .reduce<KadrelDocument>((d, edit) => applyEdit(d, { patches: edit.inverses }), document);
}

/** Selected parts that are not shown by themselves: operands and groups, whose facts the Spec wants. */
export function hiddenSelected({
  selection,
  document,
}: Pick<SessionState, 'selection' | 'document'>): ItemId[] {
  const visible = new Set(visibleParts(document).map((part) => part.id));
  return selection.filter((id) => !visible.has(id) && document.items[id]);
}
