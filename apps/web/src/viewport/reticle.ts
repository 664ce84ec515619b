/** What is caught under the pointer, and the line from where a pick began. */
import { project, type Camera, type Vec3 } from '@kadrel/core';
import { make, mark, setLine } from './svg.ts';

/** What the label beside the reticle says. */
export interface ReticleWords {
  readonly title: string;
  readonly detail: string;
  /** The coordinates. */
  readonly numbers: string;
}

/** The label goes to the left of the pointer where it would not fit to the right, px. */
const LABEL_WIDTH = 240;
const LABEL_OFF = 14;
const LABEL_ABOVE = 44;
const LABEL_HEIGHT = 48;
const RIM = 4;

/** A sign at what is caught, with its kind, its part and its coordinates in words. It stays where it is while the camera moves. */
export class Reticle {
  private readonly sign: SVGGElement;
  private readonly rubber: SVGLineElement;
  private readonly label: HTMLDivElement;
  private camera: Camera | null = null;

  constructor(svg: SVGSVGElement, host: HTMLElement) {
    this.rubber = make('line', svg, {
      stroke: 'var(--plum)',
      'stroke-dasharray': '4 3',
      'stroke-width': '1.4',
      visibility: 'hidden',
    });
    this.sign = make('g', svg, {
      visibility: 'hidden',
      stroke: 'var(--plum)',
      fill: 'none',
      'stroke-width': '1.8',
    });
    make('circle', this.sign, { r: '7' });
    make('path', this.sign, { d: 'M0 -12v6M0 6v6M-12 0h6M6 0h6' });
    this.label = document.createElement('div');
    this.label.className = 'pointer-events-none absolute z-10 hidden rounded bg-ink px-2.5 py-1 text-paper';
    host.append(this.label);
  }

  /** The camera that the next is shown by. */
  follow(camera: Camera): void {
    this.camera = camera;
  }

  /** At a point, mm. */
  show(point: Vec3, words: ReticleWords): void {
    const { camera } = this;
    if (!camera) return;
    this.setShown({ isShown: true });
    const [x, y] = project(camera, point);
    this.sign.setAttribute('transform', `translate(${x} ${y})`);
    const { title, detail, numbers } = words;
    this.label.replaceChildren(line('', [strong(title), ` ${detail}`]), line('num opacity-80', [numbers]));
    const isLeft = x + LABEL_WIDTH > camera.width;
    const left = isLeft ? x - LABEL_OFF - this.label.offsetWidth : x + LABEL_OFF;
    const top = Math.min(camera.pixelHeight - LABEL_HEIGHT, Math.max(RIM, y - LABEL_ABOVE));
    this.label.style.transform = `translate(${Math.round(Math.max(RIM, left))}px, ${Math.round(top)}px)`;
  }

  hide(): void {
    this.setShown({ isShown: false });
  }

  private setShown({ isShown }: { readonly isShown: boolean }): void {
    this.sign.setAttribute('visibility', isShown ? 'visible' : 'hidden');
    this.label.classList.toggle('hidden', !isShown);
    mark(this.label, { name: 'snap-label', isShown });
  }

  /** A line between two points, mm; none without both. */
  showRubber(from: Vec3 | null, to: Vec3 | null): void {
    const { camera } = this;
    const isShown = from !== null && to !== null && camera !== null;
    this.rubber.setAttribute('visibility', isShown ? 'visible' : 'hidden');
    if (isShown) setLine(this.rubber, project(camera, from), project(camera, to));
  }

  dispose(): void {
    this.label.remove();
  }
}

function line(className: string, content: (string | Node)[]): HTMLDivElement {
  const element = document.createElement('div');
  element.className = className;
  element.append(...content);
  return element;
}

function strong(text: string): HTMLElement {
  const element = document.createElement('strong');
  element.textContent = text;
  return element;
}
