import { STANDARD_LOOKS, type Look, type StandardLook } from '../../document/sheet.ts';
import type { KadrelDocument } from '../../document/schema.ts';
import { isSection } from '../../sections/cuts.ts';
import { LOOK_WORDS } from '../../sheets/looks.ts';
import { valueOf, vectorOf } from '../../recipes/numbers.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { addView, freePlace, middleShown, scaleFrom, sheetBlank, sheetIn } from '../shared/sheets.ts';

/** One more view on a sheet: from a side, as it was kept, or what a section plane leaves. */
export const sheetView = declareVerb({
  id: 'sheet-view',
  name: 'Sheet view',
  group: 'output',
  about: 'One more view on a sheet: from a side, a kept view, a section, or a detail at another scale.',
  words: ['section', 'detail', 'elevation', 'cut', 'isometric', 'drawing', 'place view'],
  blanks: {
    from: needed('choice', 'from', 'The side that it looks from.', {
      default: 'front',
      choices: Object.fromEntries(STANDARD_LOOKS.map((look) => [look, LOOK_WORDS[look].toLowerCase()])),
    }),
    section: optional('part', 'section', 'A section plane: the view looks at what that leaves, squarely.'),
    kept: optional('text', 'kept view', 'The name of a view that is kept with the project.', { rare: true }),
    sheet: sheetBlank,
    scale: optional('text', 'scale', '1:20; that of the first view where none is said.'),
    x: optional('length', 'from the left', 'Where its middle goes, on paper.', { paper: true }),
    y: optional('length', 'from below', 'Where its middle goes, on paper.', { paper: true }),
    only: optional('parts', 'parts', 'What is drawn; all that is visible where none is said.'),
    around: optional(
      'point',
      'around',
      'The point of the model that is drawn there; the middle of what is drawn where none is said.',
      { rare: true },
    ),
    hidden: needed('choice', 'hidden lines', 'Lines that are behind something.', {
      default: 'none',
      choices: { dashed: 'dashed', none: 'left out' },
      rare: true,
    }),
    as: optional('name', 'name', 'What it is called on the sheet.', { replaces: true, rare: true }),
  },
  sentence:
    'Sheet view[ from {from}][ of the section {section}][ as kept in {kept}][ on {sheet}][ at {scale}][ at {x}][ and {y} of the paper][ around {around}][ of {only}][, hidden lines {hidden}][ named {as}]',
  apply(draft, values, context) {
    const sheet = sheetIn(draft, values.sheet);
    if (isRefusal(sheet)) return sheet;
    const look = lookFrom(draft, values);
    if (isRefusal(look)) return look;
    const scale = scaleFrom(values.scale);
    if (isRefusal(scale)) return scale;
    const anchor = values.around ? vectorOf(values.around) : middleShown(draft, values.only, context);
    if (isRefusal(anchor)) return anchor;
    const [first] = Object.values(sheet.views);
    const free = freePlace(sheet);
    addView(sheet, context.newId(), {
      name: values.as ?? nameOf(draft, look),
      look,
      scale: scale ?? first?.scale ?? 1,
      anchor,
      at: [
        values.x === undefined ? free[0] : valueOf(values.x),
        values.y === undefined ? free[1] : valueOf(values.y),
      ],
      hidden: values.hidden as 'dashed' | 'none',
      parts: values.only,
    });
    return {};
  },
});

interface Source {
  readonly from: string;
  readonly section: string | undefined;
  readonly kept: string | undefined;
}

type GivenLook = Exclude<Look, { kind: 'slice' }>;

function lookFrom(draft: KadrelDocument, { from, section, kept }: Source): GivenLook | Refusal {
  if (section !== undefined) {
    const plane = draft.items[section]!;
    return isSection(plane)
      ? { kind: 'section', plane: section }
      : refuse('section', { name: plane.name }, 'section');
  }
  if (kept === undefined) return { kind: 'standard', from: from as StandardLook };
  return Object.hasOwn(draft.views, kept)
    ? { kind: 'kept', name: kept }
    : refuse('unknown-view.kept', { kept }, 'kept');
}

function nameOf(draft: KadrelDocument, look: GivenLook): string {
  if (look.kind === 'kept') return look.name;
  return look.kind === 'section' ? draft.items[look.plane]!.name : LOOK_WORDS[look.from];
}
