import clsx from 'clsx';
import { ISOMETRIC_ALTITUDE, type Camera } from '@kadrel/core';
import { useEffect, useRef, type KeyboardEvent, type PointerEvent } from 'react';
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

/** A flat compass for the bearing with an altitude arc beside it. It follows the camera without React. */
export function ViewDial({ stage, isSmall }: { stage: Stage; isSmall: boolean }) {
  const ring = useRef<SVGGElement>(null);
  const arc = useRef<SVGGElement>(null);
  const needle = useRef<SVGPathElement>(null);
  const knob = useRef<SVGCircleElement>(null);
  useEffect(
    () =>
      stage.onCamera(({ state: { bearing, altitude } }: Camera) => {
        const [a, b] = [onRing(bearing - 16, RADIUS - 8), onRing(bearing + 16, RADIUS - 8)];
        needle.current?.setAttribute(
          'd',
          `M${CENTRE.x} ${CENTRE.y}L${a.x} ${a.y}A${RADIUS - 8} ${RADIUS - 8} 0 0 0 ${b.x} ${b.y}Z`,
        );
        const at = onArc(altitude);
        knob.current?.setAttribute('cx', String(at.x));
        knob.current?.setAttribute('cy', String(at.y));
        ring.current?.setAttribute('aria-valuenow', String(Math.round(bearing)));
        ring.current?.setAttribute('aria-valuetext', `${Math.round(bearing)}°`);
        arc.current?.setAttribute('aria-valuenow', String(Math.round(altitude)));
        arc.current?.setAttribute('aria-valuetext', `${Math.round(altitude)}°`);
      }),
    [stage],
  );

  const local = (event: PointerEvent<SVGElement>) => {
    const { left, top } = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    const shrink = isSmall ? 0.72 : 1;
    return { x: (event.clientX - left) / shrink, y: (event.clientY - top) / shrink };
  };
  /** The bearing under the pointer, drawn to a stop that is near. */
  const turnTo = (event: PointerEvent<SVGElement>) => {
    const { x, y } = local(event);
    const free = ((Math.atan2(x - CENTRE.x, y - CENTRE.y) * 180) / Math.PI + 360) % 360;
    const stop = BEARINGS.find((bearing) => Math.abs(((free - bearing + 540) % 360) - 180) < 7);
    stage.active.look({ bearing: stop ?? Math.round(free), altitude: stage.active.view.altitude });
  };
  const tiltTo = (event: PointerEvent<SVGElement>) => {
    const { x, y } = local(event);
    const free = Math.max(
      -90,
      Math.min(90, ((Math.atan2(ARC.y - y, x - ARC.x) * 180) / Math.PI / ARC.bend) * 90),
    );
    const stop = STOPS.find((altitude) => Math.abs(free - altitude) < 5);
    stage.active.look({ bearing: stage.active.view.bearing, altitude: stop ?? Math.round(free) });
  };
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
  const { view } = stage.active;

  return (
    <div
      className={clsx('absolute bottom-1 left-1 origin-bottom-left', isSmall && 'scale-[0.72]')}
      onPointerDown={(event) => event.stopPropagation()}
    >
      <svg width={224} height={136} className="text-[10px]" fontSize={10} fill="var(--ink2)">
        <g
          ref={ring}
          role="slider"
          tabIndex={0}
          aria-label="Bearing of the view"
          aria-valuemin={0}
          aria-valuemax={360}
          aria-valuenow={Math.round(view.bearing)}
          className="cursor-pointer"
          {...drag(turnTo)}
          onKeyDown={steps((step) =>
            stage.active.look({
              ...stage.active.view,
              bearing: (stage.active.view.bearing + step + 360) % 360,
            }),
          )}
        >
          <circle cx={CENTRE.x} cy={CENTRE.y} r={RADIUS + 4} fill="var(--sheet)" stroke="var(--ink3)" />
          <path ref={needle} fill="var(--plum)" />
          <circle cx={CENTRE.x} cy={CENTRE.y} r={2.5} fill="var(--ink)" />
          {BEARINGS.map((bearing) => {
            const [a, b] = [onRing(bearing, RADIUS + 4), onRing(bearing, RADIUS - 3)];
            return <line key={bearing} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--ink3)" />;
          })}
        </g>
        {([0, 90, 180, 270] as const).map((bearing) => {
          const at = onRing(bearing, RADIUS + 13);
          const anchor = bearing === 90 ? 'start' : bearing === 270 ? 'end' : 'middle';
          const word = BEARING_WORDS[bearing / 45]!;
          return (
            <text
              key={bearing}
              role="button"
              tabIndex={0}
              aria-label={`Look from the ${word}`}
              className="cursor-pointer"
              x={bearing === 270 ? at.x + 4 : bearing === 90 ? at.x - 6 : at.x}
              y={at.y + (bearing === 0 ? 5 : bearing === 180 ? 0 : 3)}
              textAnchor={anchor}
              onClick={() => stage.active.look({ bearing, altitude: stage.active.view.altitude })}
              onKeyDown={(event) =>
                event.key === 'Enter' && stage.active.look({ bearing, altitude: stage.active.view.altitude })
              }
            >
              {word}
            </text>
          );
        })}
        <g
          ref={arc}
          role="slider"
          tabIndex={0}
          aria-label="Altitude of the view"
          aria-valuemin={-90}
          aria-valuemax={90}
          aria-valuenow={Math.round(view.altitude)}
          className="cursor-pointer"
          {...drag(tiltTo)}
          onKeyDown={steps((step) =>
            stage.active.look({ ...stage.active.view, altitude: nextStop(stage.active.view.altitude, step) }),
          )}
        >
          <path d={arcPath()} fill="none" stroke="transparent" strokeWidth={18} />
          <path d={arcPath()} fill="none" stroke="var(--ink3)" />
          {STOPS.map((altitude) => {
            const [a, b] = [onArc(altitude, ARC.radius - 3), onArc(altitude, ARC.radius + 3)];
            return <line key={altitude} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--ink3)" />;
          })}
          <circle ref={knob} r={5} fill="var(--plum)" />
        </g>
        {ALTITUDES.map(([altitude, word]) => {
          const at = onArc(altitude, ARC.radius + 9);
          return (
            <text
              key={altitude}
              role="button"
              tabIndex={0}
              aria-label={`Altitude: ${word === '35°' ? 'isometric, 35.26°' : word}`}
              className="cursor-pointer"
              x={at.x}
              y={at.y + 3}
              onClick={() => stage.active.look({ bearing: stage.active.view.bearing, altitude })}
              onKeyDown={(event) =>
                event.key === 'Enter' && stage.active.look({ bearing: stage.active.view.bearing, altitude })
              }
            >
              {word}
            </text>
          );
        })}
      </svg>
    </div>
  );
}

/** The stop above or below an altitude. */
function nextStop(altitude: number, step: number): number {
  const beyond = STOPS.filter((stop) => (step > 0 ? stop > altitude + 1e-9 : stop < altitude - 1e-9));
  return (step > 0 ? beyond[0] : beyond.at(-1)) ?? altitude;
}

function arcPath(): string {
  const [a, b] = [onArc(90), onArc(-90)];
  return `M${a.x} ${a.y}A${ARC.radius} ${ARC.radius} 0 0 1 ${b.x} ${b.y}`;
}
