import { loftWays } from '../recipes/bodies/index.ts';
import { definitionOf, valueOf } from '../document/items.ts';
import { addBody, asBlank, endsBlank, endsOf } from './bodies.ts';
import { declareVerb, isRefusal, needed, optional, refuse } from './declare.ts';
import { requireProfiles } from './drawing.ts';
import { readOne } from './reading.ts';

/** A body between sections, each in its own place. */
export const loft = declareVerb({
  id: 'loft',
  name: 'Loft',
  group: 'draw',
  about: 'A body through two or more sections, one after another; inner outlines leave a hollow.',
  words: ['blend', 'through', 'sections', 'skin', 'transition', 'hollow', 'funnel', 'rails', 'guides'],
  blanks: {
    profiles: needed('parts', 'sections', 'Closed profiles, in the order in which it goes through them.', {
      least: 2,
    }),
    flanks: needed('choice', 'flanks', 'Straight from section to section, or one smooth curve through all.', {
      default: 'smooth',
      choices: { smooth: 'smooth', ruled: 'straight between them' },
    }),
    closed: needed('choice', 'round', 'Whether it goes on from the last section to the first.', {
      default: 'no',
      choices: { no: 'from the first to the last', yes: 'and back to the first' },
      rare: true,
    }),
    guides: optional(
      'parts',
      'guides',
      'Open profiles from the first section to the last, on which its sides run.',
      {
        rare: true,
      },
    ),
    ends: endsBlank,
    as: asBlank,
  },
  sentence: 'Loft {profiles}[, {flanks}][, {closed}][, guided by {guides}][, {ends}][ named {as}]',
  apply(draft, { profiles, flanks, closed, guides = [], ends, as }, context) {
    const fault = requireProfiles(draft, profiles, 'profiles') ?? requireProfiles(draft, guides, 'guides');
    if (fault) return fault;
    const sections = profiles.filter((id) => !guides.includes(id));
    if (sections.length < 2)
      return refuse('too-few', 'A loft goes through two sections or more, besides its guides.', 'profiles');
    if (closed === 'yes' && sections.length < 3)
      return refuse('too-few', 'A loft that comes back to its first section needs three or more.', 'closed');
    if (guides.length > 0 && (sections.length > 2 || closed === 'yes'))
      return refuse('guides', 'Guides lead from one section to another: choose two sections.', 'guides');
    return addBody(
      draft,
      {
        name: as ?? 'Loft',
        base: {
          kind: 'loft',
          profiles: [...sections, ...guides],
          guides: guides.length,
          flanks: flanks === 'ruled' ? 'ruled' : 'smooth',
          closed: closed === 'yes',
          starts: sections.map(() => 0),
          ends: endsOf(ends),
        },
        profiles: sections,
        how: 'new',
        into: undefined,
      },
      context,
    );
  },
});

/** Where the sides of a loft begin on one of its sections. */
export const start = declareVerb({
  id: 'start',
  name: 'Set start',
  group: 'edit',
  about: 'Moves the point of a section from which a loft is matched to the next one, along its outline.',
  words: ['loft', 'twist', 'seam', 'match'],
  blanks: {
    part: needed('part', 'part', 'A loft.'),
    section: needed('count', 'section', 'Which one, counted from 1.', { default: '1' }),
    by: needed('quantity', 'by', 'Along the outline, from the matched point.', { kind: 'length' }),
  },
  sentence: 'Set start of section {section} of {part} to {by} along its outline',
  apply(draft, { part, section, by }, context) {
    const item = draft.items[part]!;
    const { base } = definitionOf(draft, item).recipe;
    if (base.kind !== 'loft') return refuse('no-loft', `${item.name} is no loft.`, 'part');
    if (item.locked) return refuse('locked', `${item.name} is locked. Unlock it in Parts first.`, 'part');
    const { starts } = loftWays(base);
    const count = starts.length;
    if (!(Number.isInteger(section) && section >= 1 && section <= count))
      return refuse('no-section', `${item.name} has ${count} sections.`, 'section');
    const read = readOne(by, { kind: 'length', now: valueOf(starts[section - 1]!), context, blank: 'by' });
    if (isRefusal(read)) return read;
    starts[section - 1] = read;
    base.starts = starts;
    return { select: [part] };
  },
});
