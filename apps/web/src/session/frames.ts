/** The frames of Move, Turn and Resize, each remembered by itself, on this device. */
import { VIEW_FRAMES, type ViewState } from '@kadrel/core';

/** Verbs that remember their frame. */
export const FRAMED_VERBS = ['move', 'turn', 'resize'] as const;
/** One of the verbs that remember their frame. */
export type FramedVerb = (typeof FRAMED_VERBS)[number];
/** A frame as typed, or `view` for the view that one works in. */
export type Frames = Readonly<Record<FramedVerb, unknown>>;

const FIRST_FRAMES: Frames = { move: 'world', turn: 'world', resize: 'own' };
const keyFor = (projectId: string) => `kadrel.frames.${projectId}`;

/** Whether a verb remembers its frame. */
export const isFramed = (verb: string): verb is FramedVerb =>
  (FRAMED_VERBS as readonly string[]).includes(verb);

/** Frames as they were kept in this browser. */
export function readFrames(storage: Storage, projectId: string): Frames {
  const stored = storage.getItem(keyFor(projectId));
  if (stored === null) return FIRST_FRAMES;
  try {
    return { ...FIRST_FRAMES, ...(JSON.parse(stored) as Partial<Frames>) };
  } catch (error) {
    // What cannot be read was not written by us; the usual frames take its place.
    if (error instanceof SyntaxError) return FIRST_FRAMES;
    throw error;
  }
}

/** Keeps frames in this browser. */
export const keepFrames = (storage: Storage, projectId: string, frames: Frames): void =>
  storage.setItem(keyFor(projectId), JSON.stringify(frames));

/** The frame of a view as a statement says it: by name where it has one; a perspective view means the world. */
export function frameOfView(view: Pick<ViewState, 'bearing' | 'altitude' | 'projection'>): unknown {
  if (view.projection === 'perspective') return 'world';
  const named = Object.entries(VIEW_FRAMES).find(
    ([, { bearing, altitude }]) => bearing === view.bearing && altitude === view.altitude,
  );
  return named ? named[0] : { bearing: view.bearing, altitude: view.altitude };
}
