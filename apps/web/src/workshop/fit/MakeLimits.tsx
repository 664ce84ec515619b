/** What making asks of parts, and the colours of their walls. */
import { MATERIALS, type MakeLimits, type Material, type Vec3 } from '@kadrel/core';
import { useSession, useSessionState } from '../context.ts';
import { BANDS, bandWords } from '../../session/wallBands.ts';
import { Quantity } from '../NumberField.tsx';

const LENGTHS = [
  ['wall', 'Thinnest wall'],
  ['gap', 'Narrowest gap'],
  ['feature', 'Finest feature'],
] as const;

/** Walls, gaps, overhangs, the bed and the material. */
export function Limits() {
  const session = useSession();
  const limits = useSessionState(({ fit }) => fit.limits);
  const change = (some: Partial<MakeLimits>) => session.setMaking({ limits: { ...limits, ...some } });
  return (
    <details className="mx-3.5 mb-2">
      <summary className="mb-1 cursor-pointer text-ink2">What is wanted</summary>
      <div className="flex flex-col gap-1">
        {LENGTHS.map(([key, label]) => (
          <Limit key={key} label={label} mm={limits[key]} set={(mm) => change({ [key]: mm })} />
        ))}
        <Choice
          label="Overhang up to"
          value={String(limits.overhang)}
          options={OVERHANGS}
          choose={(degrees) => change({ overhang: Number(degrees) })}
        />
        <Choice
          label="Material"
          value={limits.material}
          options={Object.entries(MATERIALS).map(([key, { name }]) => [key, name])}
          choose={(material) => change({ material: material as Material })}
        />
        <Cutter cutter={limits.cutter} set={(cutter) => change({ cutter })} />
        <Bed bed={limits.bed} label="Has to fit on a bed" set={(bed) => change({ bed })} />
      </div>
    </details>
  );
}
const OVERHANGS = [30, 35, 40, 45, 50, 55, 60, 70, 80, 90].map(
  (degrees) => [String(degrees), `${degrees}°`] as const,
);

interface ChoiceProps {
  readonly label: string;
  readonly value: string;
  /** Values and words. */
  readonly options: readonly (readonly [string, string])[];
  readonly choose: (value: string) => void;
}

function Choice({ label, value, options, choose }: ChoiceProps) {
  return (
    <label className="flex items-center gap-2">
      <span className="w-28 text-ink2">{label}</span>
      <select className="field min-w-0 flex-1" value={value} onChange={(event) => choose(event.target.value)}>
        {options.map(([key, words]) => (
          <option key={key} value={key}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

interface LimitProps {
  readonly label: string;
  readonly mm: number;
  readonly set: (mm: number) => void;
}

/** A length of what is wanted. */
export function Limit({ label, mm, set }: LimitProps) {
  const session = useSession();
  return (
    <div className="flex items-center gap-2">
      <span className="w-28 text-ink2">{label}</span>
      <Quantity
        label={label}
        kind="length"
        value={mm}
        now={mm}
        commit={(typed) => {
          const read = session.readLength(typed);
          if (read === undefined || read < 0) return Promise.resolve(false);
          set(read);
          return Promise.resolve(true);
        }}
      />
    </div>
  );
}

/** Common for routers; no source. */
const USUAL_CUTTER_MM = 3;

interface CutterProps {
  readonly cutter: number | undefined;
  readonly set: (cutter: number | undefined) => void;
}

/** What sheets are cut out with, where that is looked at. */
function Cutter({ cutter, set }: CutterProps) {
  return (
    <>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={cutter !== undefined}
          onChange={(event) => set(event.target.checked ? USUAL_CUTTER_MM : undefined)}
        />
        Sheets are cut out by a round cutter
      </label>
      {cutter !== undefined && <Limit label="Cutter across" mm={cutter} set={set} />}
    </>
  );
}

/** Common for table printers; no source. */
const USUAL_BED: Vec3 = [220, 220, 250];
const AXES = ['X', 'Y', 'Z'] as const;

interface BedProps {
  readonly bed: Vec3 | undefined;
  readonly label: string;
  readonly set: (bed: Vec3 | undefined) => void;
}

/** What has to fit onto it, where that is looked at. */
export function Bed({ bed, label, set }: BedProps) {
  return (
    <>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          checked={bed !== undefined}
          onChange={(event) => set(event.target.checked ? USUAL_BED : undefined)}
        />
        {label}
      </label>
      {bed &&
        AXES.map((axis, i) => (
          <Limit
            key={axis}
            label={`Bed along ${axis}`}
            mm={bed[i]!}
            set={(mm) => set(bed.map((old, k) => (k === i ? mm : old)) as unknown as Vec3)}
          />
        ))}
    </>
  );
}

/** Colours and words of the walls that are shown. */
export function WallLegend() {
  const walls = useSessionState(({ fit }) => fit.walls);
  const scene = useSessionState(({ document }) => document.scene);
  if (!walls) return null;
  return (
    <ul className="px-8 pb-1.5" aria-label="Colours of walls">
      {bandWords(walls.limit, scene).map((words, i) => (
        <li key={words} className="flex items-center gap-2">
          <span
            aria-hidden
            className="inline-block h-3 w-5 border border-rule"
            style={{ background: BANDS[i]!.colour }}
          />
          {words}
        </li>
      ))}
    </ul>
  );
}
