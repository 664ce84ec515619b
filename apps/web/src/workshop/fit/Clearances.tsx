/** All clearances by size, with the ranges that are wanted. */
import { formatLength, type Finding, type Scene } from '@kadrel/core';
import { Bar, BarChart, Cell, ReferenceArea, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';

/** More bars than this cannot be distinguished; the smallest are shown. */
const MAX_BARS = 40;

/** Of clearances that are wanted, mm. */
export interface Range {
  readonly least: number;
  readonly greatest: number;
}

interface ClearancesProps {
  readonly findings: readonly Finding[];
  readonly wanted: readonly Range[];
  readonly scene: Scene;
  readonly choose: (finding: Finding) => void;
}

/** Bars, the smallest first; nothing where there are fewer than two. */
export default function Clearances({ findings, wanted, scene, choose }: ClearancesProps) {
  const bars = findings
    .filter(({ kind }) => kind === 'clearance')
    .sort((a, b) => a.size - b.size)
    .slice(0, MAX_BARS);
  if (bars.length < 2) return null;
  const lengthText = (mm: number) => formatLength(mm, scene);
  return (
    <figure
      className="mx-3.5 mb-2"
      aria-label={`Clearances by size, from ${lengthText(bars[0]!.size)} to ${lengthText(bars.at(-1)!.size)} ${scene.units}`}
    >
      <figcaption className="text-[12px] text-ink2">Clearances, {scene.units}</figcaption>
      <ResponsiveContainer width="100%" height={96}>
        <BarChart data={bars} margin={{ top: 4, right: 0, bottom: 0, left: -18 }} accessibilityLayer={false}>
          <XAxis dataKey="what" hide />
          <YAxis tickFormatter={lengthText} tick={{ fontSize: 10, fill: 'var(--ink2)' }} width={52} />
          {wanted.map(({ least, greatest }) => (
            <ReferenceArea
              key={`${least} ${greatest}`}
              y1={least}
              y2={greatest}
              fill="var(--plum)"
              fillOpacity={0.15}
            />
          ))}
          {tooltip((value) => `${lengthText(value)} ${scene.units}`)}
          <Bar dataKey="size" isAnimationActive={false} onClick={(_, i) => choose(bars[i]!)}>
            {bars.map(({ id }) => (
              <Cell key={id} fill="var(--ink3)" />
            ))}
          </Bar>
        </BarChart>
      </ResponsiveContainer>
    </figure>
  );
}

/** In the colours of the page. */
const tooltip = (text: (value: number) => string) => (
  <Tooltip
    cursor={false}
    isAnimationActive={false}
    formatter={(value) => [text(Number(value)), 'clearance']}
    contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--rule)', fontSize: 12 }}
  />
);
