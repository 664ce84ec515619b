/** Scenes → documents, by the verbs that people use, and the same by facets. */
import {
  emptyDocument,
  isRefusal,
  perform,
  plainWorld,
  verbNamed,
  worldFromPart,
  type KadrelDocument,
  type Typed,
} from '@kadrel/core';
import type { ManifoldToplevel } from 'manifold-3d';
import { idOf } from '@kadrel/testing';
import type { Placed, Scene, Tree } from './cases.ts';
import { laidOut, together, type Embossed, type Reckoned } from './facets.ts';
import type { Body } from './sketches.ts';

export interface Predicted {
  readonly document: KadrelDocument;
  readonly names: readonly string[];
  readonly truth: readonly Reckoned[];
}

/** Undefined where the scene itself cannot be predicted, such as a cut that leaves nothing on the way. */
export function tellScene(facets: ManifoldToplevel, scene: Scene): Predicted | undefined {
  const teller = new Teller(facets);
  const operands = scene.of.map((tree) => teller.tell(tree));
  if (operands.some(({ truth }) => truth.solid.volume() <= truth.error)) return undefined;
  return {
    document: teller.document,
    names: operands.map(({ id }) => id),
    truth: operands.map(({ truth }) => truth),
  };
}

interface One {
  readonly id: string;
  readonly truth: Reckoned;
}

class Teller {
  document = emptyDocument();
  private count = 0;

  constructor(private readonly facets: ManifoldToplevel) {}

  tell(tree: Tree): One {
    if ('how' in tree) return this.combined(tree);
    if ('repeated' in tree) return this.repeated(tree);
    return 'mirrored' in tree ? this.mirrored(tree) : this.placed(tree);
  }

  /** @returns what it is called */
  private say(verb: string, typed: Typed): string {
    const as = `s${++this.count}`;
    this.do(verb, { as, ...typed });
    return as;
  }

  private do(verb: string, typed: Typed): void {
    const { document } = this;
    const done = perform(
      verbNamed(verb)!,
      typed,
      document,
      plainWorld(document, () => `i${++this.count}`),
    );
    if (isRefusal(done)) throw new Error(`${verb}: ${done.message}`);
    this.document = done.document;
  }

  private combined({ how, of }: Extract<Tree, { readonly how: unknown }>): One {
    const inner = of.map((tree) => this.tell(tree));
    const [from, ...parts] = inner.map(({ id }) => id);
    const id =
      how === 'subtract'
        ? this.say(how, { from: from!, parts })
        : this.say(how, { parts: [from!, ...parts] });
    const truths = inner.map(({ truth }) => truth);
    return { id, truth: together(this.facets, how, truths) };
  }

  private repeated({ repeated, columns, rows, pitch }: Extract<Tree, { readonly repeated: unknown }>): One {
    const { id, truth } = this.placed(repeated);
    const [columnPitch, rowPitch] = pitch;
    const grid = this.say('grid', { parts: [id], columns, rows, columnPitch, rowPitch });
    const members = Array.from({ length: columns * rows }, (_, i) =>
      truth.solid.translate([(i % columns) * columnPitch, Math.floor(i / columns) * rowPitch, 0]),
    );
    const solid = this.facets.Manifold.union(members);
    return { id: grid, truth: { solid, error: members.length * truth.error } };
  }

  private mirrored({ mirrored, at }: Extract<Tree, { readonly mirrored: unknown }>): One {
    const { id, truth } = this.placed(mirrored);
    this.do('mirror', { parts: [id], across: 'x', centre: 'point', at: [at, 0, 0] });
    const solid = truth.solid.translate([-at, 0, 0]).mirror([1, 0, 0]).translate([at, 0, 0]);
    return { id, truth: { solid, error: truth.error } };
  }

  private placed({ solid, at, turn }: Placed): One {
    const id = this.made(solid, at);
    if (turn.some((n) => n !== 0)) this.do('change', { parts: [id], turn: turn.map(String) });
    const pose = worldFromPart(this.document, idOf(this.document, id));
    return { id, truth: laidOut(this.facets, solid, pose) };
  }

  private made(solid: Placed['solid'], at: Placed['at']): string {
    if (solid.verb === 'raise' || solid.verb === 'revolve') return this.body(solid, at);
    if (solid.verb === 'emboss') return this.embossed(solid, at);
    const { verb, ...sizes } = solid;
    return this.say(verb, { ...sizes, at: [...at] });
  }

  private body({ figures, verb, ...typed }: Body, [x, y, z]: Placed['at']): string {
    const profiles = figures.map(({ verb: figure, at, ...sizes }) =>
      this.say(figure, { ...sizes, at: [x + at[0], y + at[1], z], on: levelAt(z) }),
    );
    return this.say(verb, { profiles, ...typed });
  }

  private embossed({ size, disc, depth }: Embossed, [x, y, z]: Placed['at']): string {
    const box = this.say('box', { size: [...size], at: [x, y, z] });
    const circle = this.say('circle', {
      diameter: disc.diameter,
      at: [x + disc.at[0], y + disc.at[1], z + size[2]],
      on: levelAt(z + size[2]),
    });
    const how = depth < 0 ? 'engrave' : 'emboss';
    this.do('emboss', { part: box, profiles: [circle], how, depth: Math.abs(depth) });
    return box;
  }
}

/** The plan at a height, by three points. */
const levelAt = (z: number) => ({
  points: [
    [0, 0, z],
    [1, 0, z],
    [0, 1, z],
  ],
});
