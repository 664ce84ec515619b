import { STANDARD_LOOKS, sheetNamed, type Sheet, type StandardLook } from '../../document/sheet.ts';
import type { ItemId, KadrelDocument } from '../../document/schema.ts';
import { arranged, roomFor, roomOn, type Arranging } from '../../sheets/arrangement.ts';
import { LOOK_WORDS } from '../../sheets/looks.ts';
import { PAPER_CHOICES, formatScale, type Paper } from '../../sheets/paper.ts';
import { boxPoint } from '../../space/box.ts';
import {
  declareVerb,
  isRefusal,
  needed,
  optional,
  refuse,
  type Refusal,
  type VerbContext,
} from '../../statement/declare.ts';
import { OWN_PAPER, paperSaid } from '../shared/papers.ts';
import { addView, boxShown, emptySheet, scaleFrom } from '../shared/sheets.ts';

const VIEWS: Readonly<Record<string, readonly StandardLook[]>> = {
  four: ['plan', 'front', 'right', 'isometric'],
  three: ['plan', 'front', 'right'],
  two: ['plan', 'front'],
  plan: ['plan'],
  front: ['front'],
  isometric: ['isometric'],
  six: STANDARD_LOOKS.filter((look) => look !== 'isometric'),
  none: [],
};

/** A drawing sheet, with the usual views already on it. */
export const sheet = declareVerb({
  id: 'sheet',
  name: 'Sheet',
  group: 'output',
  about: 'A drawing sheet with views of the model at a scale; it follows the model.',
  words: [
    'drawing',
    'paper',
    'page',
    'plan',
    'elevation',
    'print',
    'pdf',
    'plot',
    'layout',
    'blueprint',
    'title block',
  ],
  blanks: {
    paper: needed('choice', 'paper', 'Its size.', {
      default: 'a3',
      choices: PAPER_CHOICES,
    }),
    ...OWN_PAPER,
    turned: needed('choice', 'turned', 'Which way paper of a usual size lies.', {
      default: 'across',
      choices: { across: 'lying across', upright: 'upright' },
    }),
    views: needed('choice', 'views', 'The views that are put on it at once.', {
      default: 'four',
      choices: {
        four: 'plan, front, right and isometric view',
        three: 'plan, front and right view',
        two: 'plan and front view',
        plan: 'the plan',
        front: 'the front view',
        isometric: 'the isometric view',
        six: 'all six views',
        none: 'no view yet',
      },
    }),
    only: optional('parts', 'of', 'What is drawn; all that is visible where none is said.'),
    scale: optional('text', 'scale', '1:50, or 2:1; the largest usual one that fits where none is said.'),
    arrangement: needed('choice', 'arrangement', 'Where the plan goes, and all others accordingly.', {
      default: 'first',
      choices: {
        first: 'the plan below the front (first angle)',
        third: 'the plan above the front (third angle)',
      },
      rare: true,
    }),
    hidden: needed('choice', 'hidden lines', 'Lines that are behind something.', {
      default: 'dashed',
      choices: { dashed: 'dashed', none: 'left out' },
    }),
    as: optional('name', 'name', 'What it is called.', { replaces: true }),
  },
  sentence:
    'Sheet {paper}[ {width} wide][ {height} high] {turned} with {views}[ of {only}][ at {scale}][, {arrangement}], hidden lines {hidden}[ named {as}]',
  apply(draft, values, context) {
    const { as, only, arrangement, hidden } = values;
    if (as !== undefined && sheetNamed(draft, as)) return refuse('name-taken.sheet-named', { to: as }, 'as');
    const paper = paperSaid(values);
    if (isRefusal(paper)) return paper;
    const looks = VIEWS[values.views]!;
    const found =
      looks.length === 0 ? undefined : laidOut(draft, { ...values, parts: only, looks, paper }, context);
    if (found && isRefusal(found)) return found;
    const made = emptySheet(draft, {
      id: context.newId(),
      name: as,
      paper,
      arrangement: arrangement as Sheet['arrangement'],
    });
    draft.sheets[made.id] = made;
    for (const [look, at] of found?.places ?? [])
      addView(made, context.newId(), {
        name: LOOK_WORDS[look],
        look: { kind: 'standard', from: look },
        scale: found!.scale,
        anchor: found!.anchor,
        at,
        hidden: look === 'isometric' ? 'none' : (hidden as 'dashed' | 'none'),
        parts: only,
      });
    return { sheet: made.id };
  },
});

interface Wanted {
  readonly looks: readonly StandardLook[];
  readonly paper: Paper;
  readonly parts: readonly ItemId[] | undefined;
  readonly scale: string | undefined;
  readonly arrangement: string;
}

/** Where the views go; refused where they do not fit at the scale that is given. */
function laidOut(
  draft: KadrelDocument,
  { looks, paper, parts, scale: wantedScale, arrangement }: Wanted,
  context: VerbContext,
) {
  const scale = scaleFrom(wantedScale);
  if (isRefusal(scale)) return scale;
  const box = boxShown(draft, parts, context);
  if (isRefusal(box)) return box;
  const arranging: Arranging = { looks, box, paper, scale, arrangement: arrangement as Sheet['arrangement'] };
  const found = arranged(arranging);
  return found ? { ...found, anchor: boxPoint(box, [0, 0, 0]) } : doesNotFit(arranging);
}

function doesNotFit(arranging: Arranging): Refusal {
  const { scale } = arranging;
  if (scale === undefined) return refuse('too-large.paper', {}, 'paper');
  const [wanted, room] = [roomFor(arranging, scale), roomOn(arranging.paper)];
  const best = arranged({ ...arranging, scale: undefined });
  const words = ({ width, height }: Paper) => `${Math.ceil(width)} × ${Math.ceil(height)} mm`;
  return refuse(
    'too-large.views-need',
    {
      scale: formatScale(scale),
      wanted: words(wanted),
      room: words(room),
      words: best ? `, or ${formatScale(best.scale)}` : '',
    },
    'scale',
  );
}
