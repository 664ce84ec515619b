/** British English sentences: what cannot be read of a file, or written to one. */
import type { Facts } from './facts.ts';

export const FILE_SENTENCES = {
  'file.dxf-block': () => 'A block of this DXF file holds itself.',
  'file.dxf-broken': ({ why }: Facts<'why'>) => `This DXF file is broken: ${why}.`,
  'file.dxf-empty': () => 'This DXF file has no curves that could be drawn.',
  'file.dxf-number': () => 'This DXF file has a number that is none.',
  'file.dxf-repeated': ({ name, times }: Facts<'name' | 'times'>) =>
    `Block “${name}” of this DXF file is repeated ${times} times.`,
  'file.dxf-spline': () =>
    'A spline in this DXF file has neither knots for its points nor points that it goes through.',
  'file.dxf-weight': () => 'A spline in this DXF file has a weight that is not above zero.',
  'file.empty': ({ what }: Facts<'what'>) => `This ${what} file is empty.`,
  'file.format': ({ format }: Facts<'format'>) => `Kadrel does not write files of the format ${format}.`,
  'file.long': ({ what, millions }: Facts<'what' | 'millions'>) =>
    `This ${what} file has ${millions} million characters; at most 8 million are read.`,
  'file.no-dxf': () => 'This is no DXF file: it has no entities.',
  'file.no-picture': () => 'This browser paints no pictures of this size. Write a PDF instead.',
  'file.no-profile': () => 'There is no profile to write: draw one first.',
  'file.no-svg': () => 'This is no SVG file: it has no svg element.',
  'file.nothing': () => 'There is nothing to write.',
  'file.pixels-dpi': ({ name, max }: Facts<'name' | 'max'>) =>
    `${name}: a picture of this paper would have more than ${max} pixels to a side. Say fewer with --dpi.`,
  'file.several-planes': () => 'These profiles lie in several planes: choose those of one plane.',
  'file.svg-broken': ({ why }: Facts<'why'>) => `This SVG file is broken: ${why}`,
  'file.svg-broken-in': ({ line, why }: Facts<'line' | 'why'>) =>
    `This SVG file is broken in line ${line}: ${why}`,
  'file.svg-circle': () => 'This SVG file refers to itself.',
  'file.svg-degree': () => 'A curve of a degree above 3 cannot be written as SVG.',
  'file.svg-elements': ({ max }: Facts<'max'>) => `This SVG file draws more than ${max} elements.`,
  'file.svg-empty': () => 'This SVG file has no outlines that could be drawn.',
  'file.svg-entities': () => 'This SVG file defines entities, which are not read for safety.',
  'file.svg-number': ({ text }: Facts<'text'>) =>
    `“${text}” in this SVG file is no number, or has a unit that is not read.`,
  'file.svg-path': ({ why }: Facts<'why'>) => `A path in this SVG file is broken: ${why}.`,
  'file.svg-transform': ({ text }: Facts<'text'>) => `“${text}” in this SVG file is no transform.`,
};
