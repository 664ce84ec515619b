/** Numbers of a document as they would be typed. */
import type { Num } from '../document/schema.ts';

/** Its formula, or itself. */
export const typedNumber = (n: Num): string => (typeof n === 'number' ? String(n) : n.formula);
/** Millimetres as a text that any scene reads alike. */
export const typedLength = (n: Num): string => (typeof n === 'number' ? `${n} mm` : n.formula);
