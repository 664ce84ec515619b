import { outlinesOf, writeDxf } from '@kadrel/core';
import type { PlainExporter } from './declare.ts';

/** Profiles as DXF. */
export const dxf: PlainExporter = {
  format: 'dxf',
  name: 'DXF',
  about: 'The same, with arcs as arcs, in millimetres.',
  extensions: ['.dxf'],
  mime: 'image/vnd.dxf',
  holds: 'outlines',
  write: ({ document, parts }) => writeDxf(outlinesOf(document, parts)),
};
