/** Small helpers for drawing in SVG over a view. */
import type { Vec3 } from '@kadrel/core';

const SVG = 'http://www.w3.org/2000/svg';
/** Letters of the axes. */
export const AXIS_LETTERS = ['X', 'Y', 'Z'] as const;
/** Names of the colours of the axes. */
export const AXIS_ROLES = ['x', 'y', 'z'] as const;

/** An element of a picture within another. */
export function make<K extends keyof SVGElementTagNameMap>(
  tag: K,
  parent: Element,
  attributes: Readonly<Record<string, string>> = {},
): SVGElementTagNameMap[K] {
  const element = document.createElementNS(SVG, tag);
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
  parent.append(element);
  return element;
}

/** A picture over a view, which the pointer goes through. */
export function makeSvg(host: HTMLElement): SVGSVGElement {
  const svg = document.createElementNS(SVG, 'svg');
  svg.setAttribute('class', 'pointer-events-none absolute inset-0 h-full w-full');
  svg.setAttribute('aria-hidden', 'true');
  host.append(svg);
  return svg;
}

/** A letter or a number with a rim of the ground's colour, so that it can be read over anything. */
export function letter(parent: Element, colour: string, text: string): SVGTextElement {
  const made = make('text', parent, {
    fill: colour,
    stroke: 'var(--ground)',
    'stroke-width': '3',
    'paint-order': 'stroke',
    'font-weight': '700',
    'font-size': '12',
    'text-anchor': 'middle',
  });
  made.textContent = text;
  return made;
}

/** Both ends of a line, px. */
export type Ends = readonly [ax: number, ay: number, bx: number, by: number];

/** Puts a letter beyond the second end. */
export function placeLetter(text: SVGTextElement, [ax, ay, bx, by]: Ends): void {
  const size = Math.hypot(bx - ax, by - ay) || 1;
  text.setAttribute('x', String(bx + ((bx - ax) / size) * 11));
  text.setAttribute('y', String(by + ((by - ay) / size) * 11 + 4));
}

/** Puts a line from point to point. */
export function setLine(element: SVGLineElement, [x1, y1]: Vec3, [x2, y2]: Vec3): void {
  for (const [name, value] of Object.entries({ x1, y1, x2, y2 })) element.setAttribute(name, String(value));
}

/** As many children of a group as there are things to show; those that are there are used again. */
export function fillGroup(group: SVGGElement, count: number, makeOne: () => void): void {
  while (group.childElementCount > count) group.lastElementChild!.remove();
  while (group.childElementCount < count) makeOne();
}

/** Shows an element, or hides it. */
export const show = (element: Element, { isShown }: { readonly isShown: boolean }): void =>
  element.setAttribute('visibility', isShown ? 'inherit' : 'hidden');

/** Of several views, tests look at the one that shows something. */
export function mark(
  element: HTMLElement | SVGElement,
  { name, isShown }: { readonly name: string; readonly isShown: boolean },
): void {
  if (isShown) element.dataset.testid = name;
  else delete element.dataset.testid;
}

/** From a point to a line between two ends, px. */
export function distanceToSegment(x: number, y: number, [ax, ay, bx, by]: Ends): number {
  const [dx, dy] = [bx - ax, by - ay];
  const size = dx * dx + dy * dy;
  const t = size === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / size));
  return Math.hypot(x - ax - t * dx, y - ay - t * dy);
}
