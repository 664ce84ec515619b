/** The region that is being drawn for a selection, over its view. */
import type { Point, Region } from '@kadrel/core';
import { make } from './svg.ts';

/** How a region is drawn. */
interface RegionLook {
  /** What it touches is taken, not only what it encloses. */
  readonly isTouching: boolean;
  /** A fence that has no last corner yet. */
  readonly isOpen?: boolean;
}

/** The region that is being drawn. */
export class RegionMark {
  private readonly area: SVGPathElement;
  private readonly stroke: SVGPathElement;

  constructor(svg: SVGSVGElement) {
    this.area = make('path', svg, {
      fill: 'var(--plum)',
      'fill-opacity': '0.1',
      'fill-rule': 'evenodd',
      stroke: 'var(--plum)',
      'stroke-width': '1.4',
      visibility: 'hidden',
    });
    this.stroke = make('path', svg, {
      fill: 'none',
      stroke: 'var(--plum)',
      'stroke-opacity': '0.3',
      'stroke-linecap': 'round',
      'stroke-linejoin': 'round',
      visibility: 'hidden',
    });
  }

  /** Dashed where touching is enough, a full line where it must enclose. */
  show(region: Region | null, { isTouching, isOpen = false }: RegionLook): void {
    const isBrush = region?.kind === 'brush';
    this.area.setAttribute('visibility', region && !isBrush ? 'visible' : 'hidden');
    this.stroke.setAttribute('visibility', isBrush ? 'visible' : 'hidden');
    if (!region) return;
    if (isBrush) {
      // A single point is drawn as a line of no length, which the round ends make a disc.
      const [first] = region.path;
      this.stroke.setAttribute(
        'd',
        `${pathOf(region.path)}${region.path.length === 1 ? `L${first![0]} ${first![1]}` : ''}`,
      );
      this.stroke.setAttribute('stroke-width', String(2 * region.radius));
      return;
    }
    this.area.setAttribute('d', outlineOf(region, { isOpen }));
    this.area.setAttribute('stroke-dasharray', isTouching ? '5 3' : 'none');
  }
}

const pathOf = (points: readonly Point[]) =>
  points.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x} ${y}`).join('');

function outlineOf(
  region: Exclude<Region, { kind: 'brush' }>,
  { isOpen }: { readonly isOpen: boolean },
): string {
  switch (region.kind) {
    case 'rectangle':
      return `M${region.left} ${region.top}H${region.right}V${region.bottom}H${region.left}Z`;
    case 'circle': {
      const [[x, y], r] = [region.centre, region.radius];
      return `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0Z`;
    }
    case 'polygon':
      return `${pathOf(region.corners)}${isOpen ? '' : 'Z'}`;
  }
}
