/** Picking regions: they are found by the kernel when the blank has the focus, shaded, and chosen by clicks. */
import {
  carry,
  carryBack,
  fillsPoint,
  pointOnRay,
  rayToPlane,
  verbNamed,
  worldFromPart,
  type ItemId,
  type KadrelDocument,
  type Pose,
  type Question,
  type Ray,
  type RegionFound,
} from '@kadrel/core';
import { chosenRegions, isSameRegion } from '../session/regions.ts';
import type { Statement } from '../session/statement.ts';
import type { Session } from '../session/store.ts';
import type { Shade, Sketching } from './sketching.ts';

interface Found {
  readonly regions: readonly RegionFound[];
  readonly plane: Pose;
}

/** Bounded areas among profiles, to be picked. */
export class RegionPick {
  private found: Found | null = null;
  private asked = '';
  private about: KadrelDocument | null = null;
  private hovered = -1;

  constructor(
    private readonly session: Session,
    private readonly sketching: Sketching,
    private readonly redraw: () => void,
  ) {}

  /** The blank for regions that has the focus. */
  static blank(statement: Statement | null): string | null {
    if (statement?.phase !== 'open' || !statement.focus) return null;
    const { blank } = statement.focus;
    return verbNamed(statement.verb)?.blanks[blank]?.type === 'regions' ? blank : null;
  }

  /** Follows the statement in hand. */
  follow(statement: Statement | null): void {
    const profiles = RegionPick.blank(statement)
      ? (statement!.typed.profiles as ItemId[] | undefined)
      : undefined;
    const { document } = this.session.store.getState();
    if (!statement || !profiles?.length || profiles.some((id) => !document.items[id])) return this.drop();
    const question: Question = { ask: 'regions', profiles };
    // Another page may change a profile meanwhile: then its areas are asked for anew.
    const key = profiles.join();
    const isKnown = this.asked === key && this.about === document;
    if (isKnown) return this.shade();
    this.drop();
    this.asked = key;
    this.about = document;
    void this.session.find(question, statement).then((isFound) => {
      const reply = isFound ? this.session.world().ask(question) : undefined;
      if (!reply || this.asked !== key) return;
      const plane = worldFromPart(this.session.store.getState().document, profiles[0]!);
      this.found = { regions: reply as readonly RegionFound[], plane };
      this.sketching.fill(this.found.regions.map(({ triangles }) => inWorld(triangles, plane)));
      this.shade();
    });
  }

  private drop(): void {
    if (this.asked === '') return;
    this.asked = '';
    this.found = null;
    this.hovered = -1;
    this.sketching.fill([]);
    this.redraw();
  }

  /** The region under a ray; −1 for none. */
  private at(ray: Ray): number {
    if (!this.found) return -1;
    const { plane, regions } = this.found;
    const [nx, ny, nz] = [plane.turn[2], plane.turn[5], plane.turn[8]];
    const far = rayToPlane(ray, { point: plane.shift, normal: [nx, ny, nz] });
    if (far === undefined) return -1;
    const [x, y] = carryBack(plane, pointOnRay(ray, far));
    return regions.findIndex(({ triangles }) => fillsPoint(triangles, [x, y]));
  }

  hover(ray: Ray): void {
    const index = this.at(ray);
    if (index !== this.hovered) {
      this.hovered = index;
      this.shade();
    }
  }

  /** Chooses the region under a ray, or lets go of it. */
  click(ray: Ray): void {
    const region = this.found?.regions[this.at(ray)];
    const blank = RegionPick.blank(this.session.store.getState().statement);
    if (!region || blank === null) return;
    this.session.toggleRegion(blank, region);
    this.shade();
  }

  private shade(): void {
    const { statement } = this.session.store.getState();
    const blank = RegionPick.blank(statement);
    const chosen = chosenRegions(blank === null ? undefined : statement!.typed[blank]);
    this.sketching.shade(
      (this.found?.regions ?? []).map((region, i): Shade =>
        chosen.some((one) => isSameRegion(one, region)) ? 'chosen' : i === this.hovered ? 'hovered' : 'idle',
      ),
    );
    this.redraw();
  }
}

function inWorld(triangles: Float64Array, plane: Pose): Float32Array {
  const corners = new Float32Array((triangles.length / 2) * 3);
  for (let i = 0; i < triangles.length / 2; i++)
    corners.set(carry(plane, [triangles[2 * i]!, triangles[2 * i + 1]!, 0]), 3 * i);
  return corners;
}
