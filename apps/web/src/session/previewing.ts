/** What a statement would come to, and what must be asked of the kernel for it. */
import {
  isRefusal,
  perform,
  verbNamed,
  worldFromPart,
  type Base,
  type KadrelDocument,
  type Pose,
  type Question,
  type Refusal,
  type World,
} from '@kadrel/core';
import type { Committing } from './commit.ts';
import type { SessionCore } from './core.ts';
import { drawingPlane } from './drawing.ts';
import { shownOf } from './chosen.ts';
import { measureOf } from './measure.ts';
import { previewOf, type Preview } from './preview.ts';
import { sketchOf, type Sketch } from './sketch.ts';
import type { Statement } from './statement.ts';

type Tried = Pick<Statement, 'verb' | 'typed' | 'editId'>;

/** What a statement would come to. */
export function previewing(core: SessionCore, commits: Committing) {
  const { get, worlds } = core;
  return {
    /** Where parts would stand; a refusal may name what the kernel must be asked first. */
    preview(statement: Tried): Preview | Refusal {
      const before = commits.begins(statement);
      return previewOf(statement, before, previewWorld(worlds, before), get().document);
    },
    /** What a Draw statement would draw; undefined where it draws nothing. */
    sketch(statement: Tried): Sketch | Refusal | undefined {
      const before = commits.begins(statement);
      return sketchOf(statement, before, previewWorld(worlds, before));
    },
    /** The edges and faces that a statement has gathered, or the square in which it cuts. */
    gathered(statement: Tried) {
      const before = commits.begins(statement);
      return shownOf(statement, before, previewWorld(worlds, before));
    },
    /** The solid that a Make statement would make, and where it would stand; undefined where it makes none. */
    madeBy({ verb, typed, editId }: Tried): { base: Base; pose: Pose } | undefined {
      if (verbNamed(verb)?.group !== 'make') return undefined;
      const before = commits.begins({ editId });
      const done = perform(verbNamed(verb)!, typed, before, previewWorld(worlds, before));
      if (isRefusal(done) || done.outcome.result === undefined) return undefined;
      const { result } = done.outcome;
      return { base: done.document.items[result]!.recipe.base, pose: worldFromPart(done.document, result) };
    },
    ...drawnOn(core),
    find: (question: Question, statement: Pick<Statement, 'editId'>) =>
      found(worlds, commits.begins(statement), question),
    world: () => worlds.of(get().document),
    /** The distance of what is picked for Set distance; null while it cannot be determined. */
    measureOf(statement: Pick<Statement, 'typed'>) {
      const { document } = get();
      const found = measureOf(statement, document, worlds.of(document));
      return found && { ...found, scene: document.scene };
    },
  };
}

function drawnOn({ get, worlds }: SessionCore) {
  let plane: { statement: Statement | null; document: KadrelDocument; pose: Pose | undefined } = {
    statement: null,
    document: get().document,
    pose: undefined,
  };
  return {
    /** The plane that the statement in hand draws on. */
    drawingPlane(): Pose | undefined {
      const { statement, document } = get();
      // Asked at every move of the pointer: found anew only when the statement or the document is another.
      if (plane.statement !== statement || plane.document !== document)
        plane = { statement, document, pose: drawingPlane(statement, document, worlds.of(document)) };
      return plane.pose;
    },
  };
}

/** Asks the kernel what a refusal wants; resolves when it can be tried again, to whether that is of use. */
async function found(
  worlds: SessionCore['worlds'],
  document: KadrelDocument,
  question: Question,
): Promise<boolean> {
  try {
    await worlds.find(document, question);
    return true;
  } catch (error) {
    if ((error as { code?: string }).code === undefined) throw error;
    return false;
  }
}

const previewWorld = (worlds: SessionCore['worlds'], document: KadrelDocument): World => ({
  ...worlds.of(document),
  isPreview: true,
});
