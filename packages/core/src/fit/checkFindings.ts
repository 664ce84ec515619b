/** Wanted fits and kept measures as findings. */
import type { KadrelDocument } from '../document/schema.ts';
import { distance, type Vec3 } from '../space/vector.ts';
import { boxAround, type Context, type Finding, type Remedy } from './finding.ts';
import { judgeFit, judgeMeasure } from './judge.ts';
import type { Surveyed } from './survey.ts';

/** Whether a wanted fit is met, as a finding. */
export function fitFinding({ document }: Context, { fit, facts }: Surveyed['fits'][number]): Finding {
  const { state, words, value } = judgeFit(fit, facts, document.scene);
  const items = [fit.from, fit.to].flatMap((side) => ('part' in side ? [side.part] : []));
  const ends = facts?.from && facts.to ? ([facts.from, facts.to] as const) : undefined;
  return {
    id: fit.id,
    kind: 'fit',
    state: state === 'met' ? 'fine' : 'fault',
    items: [...new Set(items)],
    what: fit.name,
    words,
    size: value ?? 0,
    box: boxAround(ends ?? [[0, 0, 0]]),
    ...(ends ? { ends } : {}),
    remedies:
      state === 'missed' && ends
        ? clearanceRemedies(document, { fit, ends, distance: distance(...ends) })
        : [],
  };
}

interface Missed {
  readonly fit: Surveyed['fits'][number]['fit'];
  readonly ends: readonly [Vec3, Vec3];
  readonly distance: number;
}

/** The second goes straight to where the distance is right; a face of it that is named is offset instead. */
function clearanceRemedies(
  document: KadrelDocument,
  { fit, ends: [from, to], distance: now }: Missed,
): Remedy[] {
  const { kind, to: side, least = 0, greatest } = fit;
  if ((kind !== 'clearance' && kind !== 'contact') || !('part' in side)) return [];
  const aim = kind === 'contact' ? 0 : now < least ? least : (greatest ?? least);
  const wanted = greatest === undefined || kind === 'contact' ? aim : (least + greatest) / 2;
  const part = document.items[side.part];
  if (!part) return [];
  if (side.at !== undefined && !side.at.includes('&'))
    return [
      {
        label: 'Offset the face',
        verb: 'offset-face',
        typed: { part: part.id, faces: [side.at], by: `${now - wanted} mm` },
      },
    ];
  if (now === 0) return [];
  const by = [0, 1, 2].map((i) => `${((to[i]! - from[i]!) / now) * (wanted - now)} mm`);
  return [{ label: 'Move the second', verb: 'move', typed: { parts: [part.id], by } }];
}

/** Whether a kept measure is within its limits, as a finding. */
export function measureFinding(
  { document }: Context,
  { measure, facts }: Surveyed['measures'][number],
): Finding {
  const { state, words, value } = judgeMeasure(measure, facts, document.scene);
  const items = [measure.from, measure.to].flatMap((side) => (side && 'part' in side ? [side.part] : []));
  const ends = facts?.from && facts.to ? ([facts.from, facts.to] as const) : undefined;
  return {
    id: measure.id,
    kind: 'measure',
    state: state === 'met' ? 'fine' : 'fault',
    items: [...new Set(items)],
    what: measure.name,
    words,
    size: value ?? 0,
    box: boxAround(ends ?? (facts?.at ? [facts.at] : [[0, 0, 0]])),
    ...(ends ? { ends } : {}),
    remedies: [],
  };
}
