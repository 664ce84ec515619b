/** The dimension that a click would make, drawn on the paper while the pointer moves. */
import { isMeasured, drawDimension, widthOf, type TiedDimension, type Sheet, type Vec2 } from '@kadrel/core';
import { marksAsSvg } from '@kadrel/kernel';
import { placedOnPaper, withTie, type Caught } from '../../session/onSheet.ts';
import type { Statement } from '../../session/statement.ts';
import type { Session } from '../../session/store.ts';

/** Where it is drawn, and for which statement. */
interface DrawnOn {
  readonly svg: SVGSVGElement;
  readonly sheet: Sheet;
  readonly statement: Statement;
}

interface Under {
  readonly caught: Caught | null;
  /** Under the pointer, mm on paper. */
  readonly place: Vec2;
}

/** What is measured is found once for each thing that is caught; where the line stands follows the pointer. */
export class DimensionPreview {
  private known: {
    readonly statement: Statement;
    readonly caught: Caught | null;
    readonly tied: TiedDimension | null;
  } | null = null;

  constructor(private readonly session: Session) {}

  show({ svg, sheet, statement }: DrawnOn, { caught, place }: Under): void {
    const tied = this.tiedFor(statement, caught);
    const found = tied && drawDimension({ ...tied, dimension: laid(tied, statement, { caught, place }) });
    const marks = found && isMeasured(found) ? found.marks : [];
    const picture = { name: '', paper: sheet.paper, lineWidth: widthOf(sheet), marks, faults: [] };
    layer(svg).innerHTML = marksAsSvg(picture, 'Archivo Variable');
  }

  clear(svg: SVGSVGElement): void {
    this.known = null;
    layer(svg).innerHTML = '';
  }

  private tiedFor(statement: Statement, caught: Caught | null): TiedDimension | null {
    const { known } = this;
    if (known?.statement === statement && known.caught === caught) return known.tied;
    const tied = this.session.dimensionInHand(caught ? withTie(statement, caught) : statement);
    this.known = { statement, caught, tied };
    return tied;
  }
}

const layer = (svg: SVGSVGElement): Element => svg.querySelector('[data-preview]')!;

/** Where it would stand: as typed, else through the pointer. */
function laid(
  tied: TiedDimension,
  { held }: Statement,
  { caught, place }: Under,
): TiedDimension['dimension'] {
  const { dimension } = tied;
  if (caught) return dimension;
  const { offset, bearing } = placedOnPaper(tied, place);
  return {
    ...dimension,
    offset: held.has('offset') ? dimension.offset : offset,
    bearing: held.has('bearing') ? dimension.bearing : bearing,
  };
}
