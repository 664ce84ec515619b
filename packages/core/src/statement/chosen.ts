/** Faces and edges of a part as typed or picked → as a step keeps them. */
import { z } from 'zod';
import { MEETING, nameFit } from '../document/naming.ts';
import type { KadrelDocument } from '../document/schema.ts';
import {
  EDGE_RULES,
  type ChosenEdge,
  type ChosenFace,
  type ChosenPlace,
  type EdgeRule,
} from '../recipes/chosen.ts';
import { pointSchema } from '../recipes/numbers.ts';
import { edgeFit } from '../snapping/feature.ts';
import { meetingFit } from '../snapping/locate.ts';
import type { ShapeFeatures } from '../snapping/shape.ts';
import { isRefusal, refuse, type Refusal } from './declare.ts';

/** What a person may say for a rule, without regard to case. */
const RULE = /^(?:(?:all|the)\s+)?(?:edges?\s+)?(?:along\s+)?(all|outward|inward|x|y|z|met)$/i;
/** What is written for all edges that run on from one. */
export const onFrom = (edge: string): string => `on from ${edge}`;
const RUNNING_ON = /^(?:(?:all|running)\s+)?on\s+from\s+(.+)$/i;
const AROUND = /^(?:all\s+of|around|of)\s+(.+)$/i;

/** Where names are looked up. */
export interface Naming {
  /** The part’s name, for refusals. */
  readonly name: string;
  readonly document: KadrelDocument;
  /** Edges and corners that are no longer there may be named by the faces that met there. */
  readonly areFormer?: boolean;
  /** The built shape; asked only where a name must be found. */
  features(): ShapeFeatures | Refusal;
}

const pickedSchema = z.object({ at: z.string(), near: pointSchema.optional() });
/** One of a list, as typed or as picked. */
type Picked = z.infer<typeof pickedSchema>;

/** `all`, `along z`, `around top`, `on from top&front`, `top&front`, or what was picked; several in a list, or with commas between. */
export const readEdges = (given: unknown, naming: Naming): ChosenEdge[] | Refusal =>
  readAll(given, (one) => readEdge(one, naming));

/** `top`, or what was picked; several in a list, or with commas between. */
export const readFaces = (given: unknown, naming: Naming): ChosenFace[] | Refusal =>
  readAll(given, (one) => readFace(one, naming));

/** `top`, `top&front`, `top&front&right`, or what was picked. */
export const readPlaces = (given: unknown, naming: Naming): ChosenPlace[] | Refusal =>
  readAll(given, (one) => readPlace(one, naming));

/** What may be selected of a solid: faces, edges and corners by name, and edges by a rule. */
export const readSelected = (given: unknown, naming: Naming): (ChosenEdge | ChosenPlace)[] | Refusal =>
  readAll(given, (one): ChosenEdge | ChosenPlace | Refusal =>
    isEdgeRule(one.at) && (!one.near || isRun(one.at)) ? readEdge(one, naming) : readPlace(one, naming),
  );

/** Whether what is written means all edges that run on from one. */
export const isRun = (text: string): boolean => RUNNING_ON.test(text);

/** Whether what is written means edges without naming them. */
export const isEdgeRule = (text: string): boolean => RULE.test(text) || AROUND.test(text) || isRun(text);

function readAll<T>(given: unknown, read: (one: Picked) => T | Refusal): T[] | Refusal {
  const list = (Array.isArray(given) ? given : [given]).flatMap((one: unknown): (Picked | Refusal)[] => {
    if (typeof one === 'string')
      return one
        .split(',')
        .map((at) => ({ at: at.trim() }))
        .filter(({ at }) => at !== '');
    const picked = pickedSchema.safeParse(one);
    return [picked.success ? picked.data : refuse('type.names', {})];
  });
  const found: T[] = [];
  for (const one of list) {
    const chosen = isRefusal(one) ? one : read(one);
    if (isRefusal(chosen)) return chosen;
    found.push(chosen);
  }
  return found;
}

function readEdge({ at, near }: Picked, naming: Naming): ChosenEdge | Refusal {
  const rule = near ? null : RULE.exec(at);
  if (rule) return { rule: rule[1]!.toLowerCase() as EdgeRule };
  const around = AROUND.exec(at);
  if (around) {
    const face = readFace({ at: around[1]! }, naming);
    return isRefusal(face) ? face : { around: face.face };
  }
  const run = RUNNING_ON.exec(at);
  if (run) {
    const first = readEdge({ at: run[1]!, ...(near ? { near } : {}) }, naming);
    return isRefusal(first) || !('edge' in first)
      ? edgeOnly(first)
      : { from: first.edge, ...(near ? { near } : {}) };
  }
  const written = at.split(MEETING).map((name) => name.trim());
  if (written.length !== 2) return refuse('edge.two', { at, edgeRules: Object.keys(EDGE_RULES).join(', ') });
  const features = naming.features();
  if (isRefusal(features)) return features;
  const fits = (name: string) => edgeFit(written, name.split(MEETING), naming.document);
  const edge = bestName(features, features.curveName, fits);
  const known = edge ?? formerly(written, naming);
  return known === undefined
    ? refuse('no-such-edge', { at, name: naming.name })
    : { edge: known, ...(near ? { near } : {}) };
}

/** What edges and corners of faces that are there were called when these met. */
function formerly(written: readonly string[], naming: Naming): string | undefined {
  if (!naming.areFormer) return undefined;
  const faces = written.map((at) => readFace({ at }, naming));
  return faces.some(isRefusal) ? undefined : faces.map((one) => (one as ChosenFace).face).join(MEETING);
}

function readFace({ at, near }: Picked, naming: Naming): ChosenFace | Refusal {
  const features = naming.features();
  if (isRefusal(features)) return features;
  const face = bestName(features, features.faceName, (name) => nameFit(at, name, naming.document));
  return face === undefined
    ? refuse('no-such-face', { at, name: naming.name })
    : { face, ...(near ? { near } : {}) };
}

function readPlace(picked: Picked, naming: Naming): ChosenPlace | Refusal {
  const { at, near } = picked;
  const written = at.split(MEETING).map((name) => name.trim());
  const place = near ? { near } : {};
  if (written.length === 1) {
    const face = readFace(picked, naming);
    return isRefusal(face) ? face : { at: face.face, ...place };
  }
  if (written.length === 2) {
    const edge = readEdge(picked, naming);
    return isRefusal(edge) || !('edge' in edge) ? edgeOnly(edge) : { at: edge.edge, ...place };
  }
  const features = naming.features();
  if (isRefusal(features)) return features;
  const fits = (name: string) => meetingFit(written, name.split(MEETING), naming.document);
  const corner = bestName(features, features.pointName, fits);
  const known = corner ?? formerly(written, naming);
  return known === undefined ? refuse('no-such-corner', { at, name: naming.name }) : { at: known, ...place };
}

const edgeOnly = (edge: ChosenEdge | Refusal): Refusal => (isRefusal(edge) ? edge : refuse('edge.name', {}));

/** The name that fits best; of several that fit alike, the first. */
function bestName(
  { names }: ShapeFeatures,
  used: Uint32Array,
  fits: (name: string) => number,
): string | undefined {
  let best: string | undefined;
  let max = 0;
  for (const i of new Set(used)) {
    const fit = fits(names[i]!);
    if (fit > max) [best, max] = [names[i]!, fit];
  }
  return best;
}
