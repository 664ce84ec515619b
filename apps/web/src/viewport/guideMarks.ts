/** What stands over a view while something is aimed: touched points, the guide that is caught, and what a drag lines up with. */
import {
  formatLength,
  project,
  type Alignment,
  type Camera,
  type Guide,
  type Scene,
  type Vec3,
} from '@kadrel/core';
import { letter, make, setLine } from './svg.ts';

/** A guide is drawn this far beyond what it was touched at and caught at, as a part of the way between them. */
const BEYOND = 0.35;
const MIN_BEYOND_PX = 60;

/** Guide rays, and what was touched. */
export class GuideMarks {
  private readonly group: SVGGElement;
  private readonly touchedGroup: SVGGElement;
  private readonly guideGroup: SVGGElement;
  private readonly alignGroup: SVGGElement;
  private camera: Camera | null = null;
  private touched: readonly Vec3[] = [];
  private lines: readonly { readonly guide: Guide; readonly to: Vec3 }[] = [];
  private alignment: { readonly found: Alignment; readonly scene: Scene } | null = null;

  constructor(svg: SVGSVGElement) {
    this.group = make('g', svg, { stroke: 'var(--plum)', fill: 'none' });
    this.guideGroup = make('g', this.group, { 'stroke-dasharray': '7 4', 'stroke-width': '1.3' });
    this.alignGroup = make('g', this.group, { 'stroke-width': '1.2' });
    this.touchedGroup = make('g', this.group, { 'stroke-width': '2' });
  }

  update(camera: Camera): void {
    this.camera = camera;
    this.drawTouched();
    this.drawLines();
    this.drawAlignment();
  }

  /** Small crosses at what was touched. */
  showTouched(points: readonly Vec3[]): void {
    this.touched = points;
    this.touchedGroup.replaceChildren(
      ...points.map(() => make('path', this.touchedGroup, { d: 'M-5 0H5M0 -5V5', 'data-touched': '' })),
    );
    this.drawTouched();
  }

  /** The guides that are caught, up to a point. */
  showGuides(lines: readonly { readonly guide: Guide; readonly to: Vec3 }[]): void {
    if (lines.length === 0 && this.lines.length === 0) return;
    this.lines = lines;
    this.guideGroup.replaceChildren(...lines.map(() => make('line', this.guideGroup)));
    this.drawLines();
  }

  /** What the dragged part lines up with, and the gaps to its neighbours as numbers. */
  showAlignment(alignment: { readonly found: Alignment; readonly scene: Scene } | null): void {
    if (alignment === this.alignment) return;
    this.alignment = alignment;
    this.alignGroup.replaceChildren();
    for (const gap of alignment?.found.gaps ?? []) {
      make('line', this.alignGroup, gap.isEqual ? { 'stroke-width': '2.2' } : {});
      const text = letter(this.alignGroup, 'var(--plum)', '');
      text.textContent = `${gap.isEqual ? '= ' : ''}${formatLength(gap.distance, alignment!.scene)}`;
      text.setAttribute('data-gap', '');
    }
    for (const _ of alignment?.found.lines ?? [])
      make('line', this.alignGroup, { 'stroke-dasharray': '3 3' });
    this.drawAlignment();
  }

  private drawTouched(): void {
    const { camera } = this;
    if (!camera) return;
    this.touched.forEach((point, i) => {
      const [x, y] = project(camera, point);
      this.touchedGroup.children[i]!.setAttribute('transform', `translate(${x} ${y})`);
    });
  }

  private drawLines(): void {
    const { camera } = this;
    if (!camera) return;
    this.lines.forEach(({ guide, to }, i) => {
      const [a, b] = [project(camera, guide.from), project(camera, to)];
      const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
      const size = Math.hypot(dx, dy) || 1;
      const more = Math.max(BEYOND * size, MIN_BEYOND_PX) / size;
      setLine(this.guideGroup.children[i] as SVGLineElement, a, [b[0] + dx * more, b[1] + dy * more, 0]);
    });
  }

  private drawAlignment(): void {
    const { camera, alignment } = this;
    if (!camera || !alignment) return;
    let child = 0;
    for (const { from, to } of alignment.found.gaps) {
      const [a, b] = [project(camera, from), project(camera, to)];
      setLine(this.alignGroup.children[child++] as SVGLineElement, a, b);
      const text = this.alignGroup.children[child++]!;
      text.setAttribute('x', String((a[0] + b[0]) / 2));
      text.setAttribute('y', String((a[1] + b[1]) / 2 - 6));
    }
    for (const { from, to } of alignment.found.lines)
      setLine(
        this.alignGroup.children[child++] as SVGLineElement,
        project(camera, from),
        project(camera, to),
      );
  }
}
