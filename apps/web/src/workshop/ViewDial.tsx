import clsx from 'clsx';
import { ISOMETRIC_ALTITUDE, type Camera } from '@kadrel/core';
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { look } from '../viewport/viewing.ts';
import type { Stage } from '../viewport/stage.ts';

const RADIUS = 40;
const CENTRE = { x: 66, y: 66 } as const;
/** The arc beside the ring: its own centre and radius, and how far it bends for 90° of altitude. */
const ARC = { x: 112, y: 66, radius: 58, bend: 46 } as const;
const BEARINGS = [0, 45, 90, 135, 180, 225, 270, 315] as const;
const BEARING_WORDS = [
  'front',
  'front right',
  'right',
  'back right',
  'back',
  'back left',
  'left',
  'front left',
] as const;
const ALTITUDES: readonly (readonly [number, string])[] = [
  [90, 'plan'],
  [ISOMETRIC_ALTITUDE, '35°'],
  [0, 'level'],
  [-90, 'under'],
];
/** Altitudes that the arc is drawn to: faces, the edges between them, and corners. */
const STOPS = [-90, -45, -ISOMETRIC_ALTITUDE, 0, ISOMETRIC_ALTITUDE, 45, 90] as const;
const STEP_DEGREES = 15;

const rad = (degrees: number) => (degrees * Math.PI) / 180;
/** On the ring the front is below, as on a plan that is read from the front. */
const onRing = (bearing: number, radius: number) => ({
  x: CENTRE.x + radius * Math.sin(rad(bearing)),
  y: CENTRE.y + radius * Math.cos(rad(bearing)),
});
const onArc = (altitude: number, radius: number = ARC.radius) => {
  const angle = rad((altitude / 90) * ARC.bend);
  return { x: ARC.x + radius * Math.cos(angle), y: ARC.y - radius * Math.sin(angle) };
};

interface DialProps {
  readonly stage: Stage;
  /** Drawn smaller, where there is little room. */
  readonly isSmall: boolean;
}

/** A flat compass for the bearing with an altitude arc beside it. It follows the camera without React. */
export function ViewDial({ stage, isSmall }: DialProps) {
  return (
    <div
      className={clsx('absolute bottom-1 left-1 origin-bottom-left', isSmall && 'scale-[0.72]')}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <svg width={224} height={136} className="text-[10px]" fontSize={10} fill="var(--ink2)">
        <Ring stage={stage} isSmall={isSmall} />
        {([0, 90, 180, 270] as const).map((bearing) => (
          <BearingWord key={bearing} stage={stage} bearing={bearing} />
        ))}
        <Arc stage={stage} isSmall={isSmall} />
        {ALTITUDES.map(([altitude, word]) => (
          <AltitudeWord key={altitude} stage={stage} altitude={altitude} word={word} />
        ))}
      </svg>
    </div>
  );
}

/** Where the pointer is on the dial, as it is drawn at full size. */
function placeOn(event: PointerEvent<SVGElement>, { isSmall }: Pick<DialProps, 'isSmall'>) {
  const { left, top } = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
  const shrink = isSmall ? 0.72 : 1;
  return { x: (event.clientX - left) / shrink, y: (event.clientY - top) / shrink };
}

const drag = (work: (event: PointerEvent<SVGElement>) => void) => ({
  onPointerDown: (event: PointerEvent<SVGGElement>) => {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    work(event);
  },
  onPointerMove: (event: PointerEvent<SVGGElement>) => {
    if (event.currentTarget.hasPointerCapture(event.pointerId)) work(event);
  },
});

const steps = (change: (step: number) => void) => (event: KeyboardEvent) => {
  const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
  if (step === undefined) return;
  event.preventDefault();
  change(step * STEP_DEGREES);
};

function tellSlider(slider: SVGGElement | null, degrees: number): void {
  slider?.setAttribute('aria-valuenow', String(Math.round(degrees)));
  slider?.setAttribute('aria-valuetext', `${Math.round(degrees)}°`);
}

/** The bearing, as a needle. */
function Ring({ stage, isSmall }: DialProps) {
  const ring = useRef<SVGGElement>(null);
  const needle = useRef<SVGPathElement>(null);
  useEffect(
    () =>
      stage.panes.onCamera(({ state: { bearing } }: Camera) => {
        const [a, b] = [onRing(bearing - 16, RADIUS - 8), onRing(bearing + 16, RADIUS - 8)];
        needle.current?.setAttribute(
          'd',
          `M${CENTRE.x} ${CENTRE.y}L${a.x} ${a.y}A${RADIUS - 8} ${RADIUS - 8} 0 0 0 ${b.x} ${b.y}Z`,
        );
        tellSlider(ring.current, bearing);
      }),
    [stage],
  );
  /** The bearing under the pointer, drawn to a stop that is near. */
  const turnTo = (event: PointerEvent<SVGElement>) => {
    const { x, y } = placeOn(event, { isSmall });
    const free = ((Math.atan2(x - CENTRE.x, y - CENTRE.y) * 180) / Math.PI + 360) % 360;
    const stop = BEARINGS.find((bearing) => Math.abs(((free - bearing + 540) % 360) - 180) < 7);
    look(stage.panes.active, {
      bearing: stop ?? Math.round(free),
      altitude: stage.panes.active.travel.view.altitude,
    });
  };
  const turnBy = (step: number) => {
    const { view } = stage.panes.active.travel;
    look(stage.panes.active, { ...view, bearing: (view.bearing + step + 360) % 360 });
  };
  return (
    <g
      ref={ring}
      role="slider"
      tabIndex={0}
      aria-label="Bearing of the view"
      aria-valuemin={0}
      aria-valuemax={360}
      aria-valuenow={Math.round(stage.panes.active.travel.view.bearing)}
      className="cursor-pointer"
      {...drag(turnTo)}
      onKeyDown={steps(turnBy)}
    >
      <circle cx={CENTRE.x} cy={CENTRE.y} r={RADIUS + 4} fill="var(--sheet)" stroke="var(--ink3)" />
      <path ref={needle} fill="var(--plum)" />
      <circle cx={CENTRE.x} cy={CENTRE.y} r={2.5} fill="var(--ink)" />
      {BEARINGS.map((bearing) => (
        <Tick key={bearing} from={onRing(bearing, RADIUS + 4)} to={onRing(bearing, RADIUS - 3)} />
      ))}
    </g>
  );
}

/** The altitude, as a knob on an arc. */
function Arc({ stage, isSmall }: DialProps) {
  const arc = useRef<SVGGElement>(null);
  const knob = useRef<SVGCircleElement>(null);
  useEffect(
    () =>
      stage.panes.onCamera(({ state: { altitude } }: Camera) => {
        const at = onArc(altitude);
        knob.current?.setAttribute('cx', String(at.x));
        knob.current?.setAttribute('cy', String(at.y));
        tellSlider(arc.current, altitude);
      }),
    [stage],
  );
  const tiltTo = (event: PointerEvent<SVGElement>) => {
    const { x, y } = placeOn(event, { isSmall });
    const raw = ((Math.atan2(ARC.y - y, x - ARC.x) * 180) / Math.PI / ARC.bend) * 90;
    const free = Math.max(-90, Math.min(90, raw));
    const stop = STOPS.find((altitude) => Math.abs(free - altitude) < 5);
    look(stage.panes.active, {
      bearing: stage.panes.active.travel.view.bearing,
      altitude: stop ?? Math.round(free),
    });
  };
  const tiltBy = (step: number) => {
    const { view } = stage.panes.active.travel;
    look(stage.panes.active, { ...view, altitude: nextStop(view.altitude, step) });
  };
  return (
    <g
      ref={arc}
      role="slider"
      tabIndex={0}
      aria-label="Altitude of the view"
      aria-valuemin={-90}
      aria-valuemax={90}
      aria-valuenow={Math.round(stage.panes.active.travel.view.altitude)}
      className="cursor-pointer"
      {...drag(tiltTo)}
      onKeyDown={steps(tiltBy)}
    >
      <path d={arcPath()} fill="none" stroke="transparent" strokeWidth={18} />
      <path d={arcPath()} fill="none" stroke="var(--ink3)" />
      {STOPS.map((altitude) => (
        <Tick key={altitude} from={onArc(altitude, ARC.radius - 3)} to={onArc(altitude, ARC.radius + 3)} />
      ))}
      <circle ref={knob} r={5} fill="var(--plum)" />
    </g>
  );
}

interface Place {
  readonly x: number;
  readonly y: number;
}

const Tick = ({ from, to }: { readonly from: Place; readonly to: Place }) => (
  <line x1={from.x} y1={from.y} x2={to.x} y2={to.y} stroke="var(--ink3)" />
);

interface BearingWordProps {
  readonly stage: Stage;
  readonly bearing: 0 | 90 | 180 | 270;
}

/** A side to look from. */
function BearingWord({ stage, bearing }: BearingWordProps) {
  const at = onRing(bearing, RADIUS + 13);
  const word = BEARING_WORDS[bearing / 45]!;
  return (
    <Word
      label={`Look from the ${word}`}
      at={{
        x: bearing === 270 ? at.x + 4 : bearing === 90 ? at.x - 6 : at.x,
        y: at.y + (bearing === 0 ? 5 : bearing === 180 ? 0 : 3),
      }}
      anchor={bearing === 90 ? 'start' : bearing === 270 ? 'end' : 'middle'}
      choose={() => look(stage.panes.active, { bearing, altitude: stage.panes.active.travel.view.altitude })}
    >
      {word}
    </Word>
  );
}

interface AltitudeWordProps {
  readonly stage: Stage;
  readonly altitude: number;
  readonly word: string;
}

function AltitudeWord({ stage, altitude, word }: AltitudeWordProps) {
  const { x, y } = onArc(altitude, ARC.radius + 9);
  return (
    <Word
      label={`Altitude: ${word === '35°' ? 'isometric, 35.26°' : word}`}
      at={{ x, y: y + 3 }}
      anchor="start"
      choose={() => look(stage.panes.active, { bearing: stage.panes.active.travel.view.bearing, altitude })}
    >
      {word}
    </Word>
  );
}

interface WordProps {
  readonly label: string;
  readonly at: Place;
  readonly anchor: 'start' | 'middle' | 'end';
  readonly choose: () => void;
  readonly children: string;
}

/** A word of the dial that is a button. */
const Word = ({ label, at, anchor, choose, children }: WordProps) => (
  <text
    role="button"
    tabIndex={0}
    aria-label={label}
    className="cursor-pointer"
    x={at.x}
    y={at.y}
    textAnchor={anchor}
    onClick={choose}
    onKeyDown={(event) => event.key === 'Enter' && choose()}
  >
    {children}
  </text>
);

/** The stop above or below an altitude. */
function nextStop(altitude: number, step: number): number {
  const beyond = STOPS.filter((stop) => (step > 0 ? stop > altitude + 1e-9 : stop < altitude - 1e-9));
  return (step > 0 ? beyond[0] : beyond.at(-1)) ?? altitude;
}

function arcPath(): string {
  const [a, b] = [onArc(90), onArc(-90)];
  return `M${a.x} ${a.y}A${ARC.radius} ${ARC.radius} 0 0 1 ${b.x} ${b.y}`;
}
