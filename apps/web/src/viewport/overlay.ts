/** What stands over a view: grips, pins, reticle with its words, guides, the region of a selection, tripod. Moved by hand, never by React. */
import type { Camera } from '@kadrel/core';
import { Grips } from './grips.ts';
import { GuideMarks } from './guideMarks.ts';
import { HandleMarks } from './handles.ts';
import { RegionMark } from './regionMark.ts';
import { DockMarks, MeasureMarks, PlaceMarks, faultSign, heightSign, pinSign, startSign } from './marks.ts';
import { Reticle } from './reticle.ts';
import { makeSvg } from './svg.ts';
import { Tripod } from './tripod.ts';

/** What stands over one view. */
export class Overlay {
  /** What stands at places of the model. */
  readonly marks: {
    readonly pins: PlaceMarks;
    readonly docks: DockMarks;
    /** The points of a profile that can be dragged. */
    readonly handles: HandleMarks;
    readonly measures: MeasureMarks;
    /** Where something cannot be built. */
    readonly faults: PlaceMarks;
    /** Heights beside contours. */
    readonly heights: PlaceMarks;
    /** Where the sides of the selected loft begin. */
    readonly starts: PlaceMarks;
  };
  readonly grips: Grips;
  readonly guides: GuideMarks;
  readonly region: RegionMark;
  readonly tripod: Tripod;
  readonly reticle: Reticle;
  private readonly svg: SVGSVGElement;

  constructor(host: HTMLElement) {
    const svg = makeSvg(host);
    this.svg = svg;
    // In the order in which they cover one another.
    const heights = new PlaceMarks(svg, heightSign);
    const [pins, docks, handles] = [new PlaceMarks(svg, pinSign), new DockMarks(svg), new HandleMarks(svg)];
    const [measures, faults] = [new MeasureMarks(svg), new PlaceMarks(svg, faultSign)];
    this.grips = new Grips(svg);
    this.marks = { heights, pins, docks, handles, measures, faults, starts: new PlaceMarks(svg, startSign) };
    this.guides = new GuideMarks(svg);
    this.region = new RegionMark(svg);
    this.reticle = new Reticle(svg, host);
    this.tripod = new Tripod(svg);
  }

  /** Everything goes along with the camera. */
  follow(camera: Camera): void {
    this.grips.follow(camera);
    this.guides.update(camera);
    this.reticle.follow(camera);
    this.tripod.follow(camera);
    for (const marks of Object.values(this.marks)) marks.follow(camera);
  }

  dispose(): void {
    this.svg.remove();
    this.reticle.dispose();
  }
}
