import type { ItemId } from '@kadrel/core';

/** The kernel stopped, was stopped, or refused. */
export class KernelError extends Error {
  constructor(
    readonly code: 'cancelled' | 'superseded' | 'crashed' | 'refused',
    message: string,
    readonly part?: ItemId,
  ) {
    super(message);
    this.name = 'KernelError';
  }
}
