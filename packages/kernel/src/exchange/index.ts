/** Every format that Kadrel writes, in the order in which people see them. */
import type { Exporter } from './declare.ts';
import { dxf } from './dxf.ts';
import { json } from './json.ts';
import { obj } from './obj.ts';
import { step } from './step.ts';
import { stl } from './stl.ts';
import { svg } from './svg.ts';

/** All formats, in the order in which people see them. */
export const EXPORTERS: readonly Exporter[] = [step, stl, obj, svg, dxf, json];

/** Undefined where there is none. */
export const exporterNamed = (format: string): Exporter | undefined =>
  EXPORTERS.find((one) => one.format === format);

/** By the ending of a file’s name; undefined where Kadrel does not write such files. */
export const exporterFor = (path: string): Exporter | undefined =>
  EXPORTERS.find(({ extensions }) => extensions.some((ending) => path.toLowerCase().endsWith(ending)));
