/** Whether parts can be made, without a screen: `kadrel make FILE`. */
import {
  MATERIALS,
  USUAL_LIMITS,
  type FitReport,
  type KadrelDocument,
  type MakeLimits,
  type Material,
} from '@kadrel/core';
import { makeReportOf, type Evaluator } from '@kadrel/kernel';
import { UsageError } from './usage.ts';

/** As given on the command line. */
export interface MakeOptions {
  readonly wall?: string | undefined;
  readonly gap?: string | undefined;
  readonly overhang?: string | undefined;
  readonly feature?: string | undefined;
  readonly cutter?: string | undefined;
  readonly bed?: string | undefined;
  readonly material?: string | undefined;
  readonly parts: readonly string[];
}

/** Throws UsageError. */
export function makeOf(
  document: KadrelDocument,
  kernel: Evaluator,
  options: MakeOptions,
): Promise<FitReport> {
  const { parts } = options;
  return makeReportOf(kernel, document, {
    limits: limitsOf(options),
    ...(parts.length > 0 ? { parts } : {}),
  });
}

function limitsOf({ wall, gap, overhang, feature, cutter, bed, material }: MakeOptions): MakeLimits {
  return {
    wall: numberOf('--wall', wall, USUAL_LIMITS.wall),
    gap: numberOf('--gap', gap, USUAL_LIMITS.gap),
    overhang: numberOf('--overhang', overhang, USUAL_LIMITS.overhang),
    feature: numberOf('--feature', feature, USUAL_LIMITS.feature),
    cutter: cutter === undefined ? undefined : numberOf('--cutter', cutter, 0),
    bed: bed === undefined ? undefined : bedOf(bed),
    material: materialOf(material),
  };
}

function numberOf(option: string, text: string | undefined, usual: number): number {
  const value = text === undefined ? usual : Number(text);
  if (!(value >= 0 && value <= 1e6)) throw new UsageError(`${option} takes a number from 0 to 1000000.`);
  return value;
}

/** Three lengths, mm. Throws UsageError. */
export function bedOf(text: string): [number, number, number] {
  const sizes = text.split(',').map(Number);
  if (sizes.length !== 3 || !sizes.every((mm) => mm > 0))
    throw new UsageError('--bed takes three lengths in mm, as 220,220,250.');
  return sizes as [number, number, number];
}

function materialOf(text: string | undefined): Material {
  if (text === undefined) return USUAL_LIMITS.material;
  if (!Object.hasOwn(MATERIALS, text))
    throw new UsageError(`--material takes one of ${Object.keys(MATERIALS).join(', ')}.`);
  return text as Material;
}
