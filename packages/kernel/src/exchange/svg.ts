import { outlinesOf, writeSvg } from '@kadrel/core';
import type { PlainExporter } from './declare.ts';

/** Profiles as SVG. */
export const svg: PlainExporter = {
  format: 'svg',
  name: 'SVG',
  about: 'Outlines of profiles in one plane, at their true size.',
  extensions: ['.svg'],
  mime: 'image/svg+xml',
  holds: 'outlines',
  write: ({ document, parts }) => writeSvg(outlinesOf(document, parts)),
};
