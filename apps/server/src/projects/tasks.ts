/** Work whose cost grows with a project or with what was sent. It is done away from the thread that answers everybody. */

/** Who asks. */
export interface Asking {
  readonly id: string;
  readonly name: string;
}

/** Work on a project that a worker does. */
export type Task = { readonly asking: Asking } & (
  | { readonly kind: 'append' | 'keep' | 'picture'; readonly project: string; readonly body: unknown }
  | { readonly kind: 'from-file'; readonly body: unknown }
  | { readonly kind: 'open' | 'duplicate'; readonly project: string }
);

/** An answer as it is sent. */
export interface Answer {
  readonly status: number;
  /** JSON. */
  readonly text: string;
  /** After a save, where the document is small enough to be kept at hand. */
  readonly head?: { readonly revision: number; readonly lastTime: number; readonly document: string };
}

/** Of answers, by their status: what is refused is a problem document. */
export const mediaTypeOf = (status: number): string =>
  status < 400 ? 'application/json' : 'application/problem+json';

/** A document of at most so many parts may be small; to know how small it must be written out. */
export const MAX_LIGHT_PARTS = 300;

/** JSON of at most so many characters is read and written within a few milliseconds. */
export const MAX_LIGHT = 64_000;
