import { fieldsOf, type ChoiceField, type NumberField } from '../../recipes/fields.ts';
import { SECTION_VIEWS, section as kind, type SectionView } from '../../recipes/bodies/section.ts';
import { declareVerb, isRefusal, needed, optional, refuse, type Refusal } from '../../statement/declare.ts';
import { PLANE_SENTENCE, planeBlanks, givenPose } from '../shared/laidPlane.ts';
import { addSectionPlane } from '../shared/sectionPlane.ts';

const FIELDS = new Map(fieldsOf(kind.schema));
const chosen = (key: 'shows' | 'form') => {
  const { label, about, choices, default: first } = FIELDS.get(key) as ChoiceField;
  return needed('choice', label.toLowerCase(), about, { choices, default: first! });
};
const lengthOf = (key: 'depth' | 'size') => {
  const { label, about, default: first } = FIELDS.get(key) as NumberField;
  return { label: label.toLowerCase(), about, first: first! };
};
const [depth, sheet] = [lengthOf('depth'), lengthOf('size')];

/** A plane that cuts the model open where it is looked at. The parts stay as they are. */
export const section = declareVerb({
  id: 'section',
  name: 'Section plane',
  group: 'cut',
  about: 'Cuts the model open to look inside; the parts stay as they are.',
  words: ['cut', 'clip', 'clipping', 'inside', 'hatch', 'slab', 'cross-section', 'open'],
  blanks: {
    ...planeBlanks,
    shows: chosen('shows'),
    form: chosen('form'),
    depth: needed('length', depth.label, depth.about, { default: depth.first, positive: true, rare: true }),
    views: optional(
      'text',
      'in',
      'Which views it cuts in: any of plan, home, front, right; all where none is said.',
      {
        rare: true,
      },
    ),
    whole: optional('parts', 'left whole', 'Parts that it does not cut.', { rare: true }),
    size: needed('length', sheet.label, sheet.about, { default: sheet.first, positive: true, rare: true }),
    as: optional('name', 'name', 'What it is called.'),
  },
  sentence: `Section plane ${PLANE_SENTENCE}, {shows}, {form}[, {depth} deep][, in {views}][, {whole} left whole][, sheet {size}][ named {as}]`,
  apply(draft, { shows, form, depth: thick, views, whole, size, as, ...plane }, context) {
    const pose = givenPose(plane);
    if (isRefusal(pose)) return pose;
    const cut = views === undefined ? undefined : viewsIn(views);
    if (isRefusal(cut)) return cut;
    const id = addSectionPlane(draft, context, {
      name: as ?? 'Section',
      pose,
      shows: shows as 'behind' | 'before',
      form: form as 'half' | 'slab' | 'corner',
      depth: thick,
      size,
      cutsIn: (view) => !cut || cut.has(view),
      whole,
    });
    return { result: id, select: [id] };
  },
});

/** Views given in a row. */
function viewsIn(text: string): ReadonlySet<SectionView> | Refusal {
  const names = text
    .toLowerCase()
    .split(/[\s,;]+|\band\b/)
    .filter((word) => word !== '');
  const unknown = names.find((word) => !(SECTION_VIEWS as readonly string[]).includes(word));
  if (unknown !== undefined)
    return refuse('view', { unknown, sectionViews: SECTION_VIEWS.join(', ') }, 'views');
  return new Set(names as SectionView[]);
}
