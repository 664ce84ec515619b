/** The rack that ships with Kadrel. */
import type { RackFile, RackPart } from '../document/rack.ts';
import { rackPartFrom, type StarterPart } from './declare.ts';
import { FASTENERS } from './fasteners.ts';
import { PIPES } from './pipes.ts';
import { PRINTED } from './printed.ts';
import { PROFILES } from './profiles.ts';

const PARTS: readonly StarterPart[] = [...FASTENERS, ...PROFILES, ...PIPES, ...PRINTED];

/** Made when they are first asked for. */
const made = new Map<string, RackPart>();

/** A part of the starter rack by its name. */
export function starterPart(name: string): RackPart | undefined {
  const known = made.get(name);
  if (known) return known;
  const found = PARTS.find((one) => one.name === name);
  if (!found) return undefined;
  const part = rackPartFrom(found);
  made.set(name, part);
  return part;
}

/** All of it, in the order in which people see it. */
export const starterRack = (): RackFile => ({
  kadrelRack: 1,
  name: 'Starter rack',
  parts: PARTS.map(({ name }) => starterPart(name)!),
});
