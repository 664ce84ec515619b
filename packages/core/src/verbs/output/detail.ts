import { valueOf } from '../../recipes/numbers.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from '../../statement/declare.ts';
import { addView, freePlace, scaleFrom, sheetBlank, sheetIn, tieKept } from '../shared/sheets.ts';

/** Where nothing is said, a detail is so many times as large as the view that it is of. */
const USUAL_ENLARGEMENT = 2;

/** Part of a view, larger, with a ring round it in both. */
export const detail = declareVerb({
  id: 'detail',
  name: 'Detail',
  group: 'output',
  about: 'Part of a view of a sheet at a larger scale, with a ring and a letter in both.',
  words: ['enlarge', 'magnify', 'zoom', 'ring', 'larger scale', 'close-up'],
  blanks: {
    ties: needed('ties', 'about', 'Its middle: clicked on the sheet, or told by names.', { single: true }),
    radius: needed('length', 'within', 'How far round that it reaches, on the model.', { positive: true }),
    scale: optional('text', 'scale', '1:5, or 2:1; twice that of the view where none is said.'),
    view: optional('entry', 'of', 'The view that it is a detail of.', { of: 'sheet', among: ['views'] }),
    sheet: sheetBlank,
    x: optional('length', 'from the left', 'Where its middle goes, on paper.', { paper: true }),
    y: optional('length', 'from below', 'Where its middle goes, on paper.', { paper: true }),
    as: optional('name', 'name', 'What it is called on the sheet.', { replaces: true, rare: true }),
  },
  sentence:
    'Detail about {ties} within {radius}[, at {scale}][, of {view}][ on {sheet}][ at {x}][ and {y} of the paper][ named {as}]',
  apply(draft, { ties, radius, view, x, y, as, ...values }, context) {
    const sheet = sheetIn(draft, values.sheet);
    if (isRefusal(sheet)) return sheet;
    const [only, other] = Object.keys(sheet.views);
    const of = view?.id ?? (other === undefined ? only : undefined);
    if (of === undefined) return refuse('missing.view-of-detail', {}, 'view');
    const whole = sheet.views[of]!;
    if (whole.look.kind === 'slice') return refuse('no-detail.layer', {}, 'view');
    const scale = scaleFrom(values.scale);
    if (isRefusal(scale)) return scale;
    const free = freePlace(sheet);
    addView(sheet, context.newId(), {
      name: as ?? `Detail of ${whole.name}`.slice(0, MAX_NAME),
      look: JSON.parse(JSON.stringify(whole.look)) as typeof whole.look,
      scale: scale ?? whole.scale * USUAL_ENLARGEMENT,
      anchor: ties[0]!.geometry.at,
      at: [x === undefined ? free[0] : valueOf(x), y === undefined ? free[1] : valueOf(y)],
      hidden: whole.hidden,
      parts: whole.parts,
      detail: { of, radius: valueOf(radius), tie: tieKept(ties[0]!) },
    });
    return {};
  },
});

/** Letters of a name, so that a number still fits in. */
const MAX_NAME = 110;
