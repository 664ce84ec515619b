/** Exact millimetres, as a pick or a table wrote them, in scene units; anything else as it was typed. */
import { formatLength, type Scene } from '@kadrel/core';
import { exactNumber } from '../session/statement.ts';

export function shownText(text: string, scene: Scene): string {
  const exact = exactNumber(text);
  return exact === undefined ? text : formatLength(exact, scene);
}
