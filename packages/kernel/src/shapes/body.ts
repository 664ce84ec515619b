/** Bodies made from profiles, and the primitives that are stacked, leant or cut. */
import type { BodyContent } from '../bodies.ts';
import { BuildError, type Occt } from '../occt/occt.ts';
import { buildCap } from './cap.ts';
import { buildDrawn, buildSheet } from './drawn.ts';
import { buildLoft } from './loft.ts';
import type { NamedShape } from './named.ts';
import { buildRaise } from './raise.ts';
import { buildRevolve } from './revolve.ts';
import { buildFill } from './surfaces.ts';
import { buildSweep } from './sweep.ts';
import { buildTiers } from './tiers.ts';
import { buildWall } from './wall.ts';
import { buildWedge } from './wedge.ts';

/** Throws BuildError. */
export function buildBody(occt: Occt, content: BodyContent): NamedShape {
  switch (content.kind) {
    case 'drawn':
      return buildDrawn(occt, content.paths);
    case 'sheet':
      return buildSheet(occt, content.size, content.grid);
    case 'raise':
      return buildRaise(occt, content);
    case 'revolve':
      return buildRevolve(occt, content);
    case 'loft':
      return buildLoft(occt, content);
    case 'sweep':
      return buildSweep(occt, content);
    case 'fill':
      return buildFill(occt, content.sections);
    case 'wall':
      return buildWall(occt, content);
    case 'tiers':
      return buildTiers(occt, content.levels);
    case 'wedge':
      return buildWedge(occt, content);
    case 'cap':
      return buildCap(occt, content.diameter, content.height);
    case 'fault':
      throw new BuildError(content.reason, content.remedy, content.places);
  }
}
