/** Texts of the number language, read with the variables and the units of the document. */
import { QuantityError, quantityReader, valueOf, type QuantityKind } from '@kadrel/core';
import type { SessionCore } from './core.ts';

/** Texts as numbers, as the document reads them. */
export function reading({ get }: Pick<SessionCore, 'get'>) {
  return {
    /** A text of the number language as a length in mm; undefined while it says none. */
    readLength(text: string): number | undefined {
      try {
        return valueOf(quantityReader(get().document)(text, 'length'));
      } catch (error) {
        if (error instanceof QuantityError) return undefined;
        throw error;
      }
    },
    /** Why a text is no quantity of this kind, or undefined. `now` is the present value, in mm or degrees. */
    quantityFault(text: string, kind: QuantityKind, now?: number): string | undefined {
      try {
        quantityReader(get().document)(text, kind, now);
        return undefined;
      } catch (error) {
        if (error instanceof QuantityError) return error.message;
        throw error;
      }
    },
  };
}
