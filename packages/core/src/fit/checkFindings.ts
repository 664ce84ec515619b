/** Wanted fits and kept measures as findings. */
import { boxAround, type Context, type Finding } from './finding.ts';
import { fitRemedies } from './fitRemedies.ts';
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
    remedies: state === 'missed' && facts ? fitRemedies(document, fit, facts) : [],
  };
}

/** Whether a kept measure is within its limits, as a finding. */
export function measureFinding(
  { document }: Context,
  { measure, facts }: Surveyed['measures'][number],
): Finding {
  const { state, words, value } = judgeMeasure(measure, facts, document.scene);
  const items = [measure.from, measure.to, measure.path].flatMap((side) =>
    side && 'part' in side ? [side.part] : [],
  );
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
