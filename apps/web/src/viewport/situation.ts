/**
 * What the pointer is at in the views, as plain data: `step` takes what happens and what is known of the place under the
 * pointer, and says what it is at next and what is to be done. Looking round works in every situation and ends none.
 */

/** A press that moves less than this is a click, pixels. */
export const CLICK_PX = 4;

interface Pixel {
  readonly x: number;
  readonly y: number;
}

/** What the pointer is in the middle of. */
export type Situation =
  | { readonly at: 'idle' }
  | ({ readonly at: 'navigating'; readonly how: 'orbit' | 'pan'; readonly then: Situation } & Pixel)
  /** The button is down, and nothing has moved yet. */
  | ({ readonly at: 'pressed'; readonly on: Held } & Pixel)
  | { readonly at: 'region' }
  /** Between the clicks that set the corners of a fence. */
  | { readonly at: 'fence' }
  | { readonly at: 'gripping' }
  /** One of the points of a profile is dragged. */
  | { readonly at: 'point' }
  /** A statement is drawn: the next place is for `step`; null once the last one has been given. */
  | {
      readonly at: 'drawing';
      readonly step: number | null;
      readonly press: Pixel | null;
      /** The button went down for the first place and has not come up since. */
      readonly isFirst: boolean;
    };
/** What lies under a press: something that can be dragged, or anything else. */
export type Held = 'grip' | 'handle' | 'other';

/** What the pointer has done. */
export type PointerEventData =
  | ({ readonly is: 'down'; readonly button: number; readonly shift: boolean } & Pixel)
  | ({ readonly is: 'move' } & Pixel)
  | ({ readonly is: 'up'; readonly button: number } & Pixel)
  | { readonly is: 'key'; readonly key: string }
  /** The statement in hand was left, carried out, or changed for another. */
  | { readonly is: 'ended' };

/** What is known, asked only where it matters. */
export interface Facts {
  /** A statement is at work, or a former state is looked at: nothing can be pressed. */
  isBusy(): boolean;
  /** The step of its gesture that the statement in hand begins with; null where clicks do not draw it. */
  drawsFrom(): number | null;
  /** The step after one that is given; null after the last. */
  nextStep(step: number): number | null;
  held(): Held;
  /** A drag takes what lies within a region. */
  takesRegions(): boolean;
  isFence(): boolean;
  /** A gesture that goes on until Enter begins its next round with this step, and what stands is whole. */
  isRoundDone(step: number): boolean;
}

/** What is to be done about it. */
export type Effect =
  | { readonly do: 'look'; readonly how: 'orbit' | 'pan' }
  | { readonly do: 'turn' | 'shift'; readonly dx: number; readonly dy: number }
  /** Takes hold of what lay under the press. */
  | ({ readonly do: 'takeGrip' | 'takePoint' | 'beginRegion' } & Pixel)
  | { readonly do: 'give'; readonly step: number }
  | {
      readonly do:
        | 'follow'
        | 'click'
        | 'letGo'
        | 'letPointGo'
        | 'drawRegion'
        | 'showFence'
        | 'fenceCorner'
        | 'lastCornerBack'
        | 'endRegion'
        | 'finish'
        | 'clear';
    };

/** The next situation, and what is to be done. */
export type Stepped = readonly [next: Situation, effects: readonly Effect[]];

const IDLE: Situation = { at: 'idle' };
const stay = (situation: Situation, ...effects: Effect[]): Stepped => [situation, effects];
const isFar = (a: Pixel, b: Pixel) => Math.hypot(a.x - b.x, a.y - b.y) >= CLICK_PX;

/** What comes next; nothing is done here. */
export function step(now: Situation, event: PointerEventData, facts: Facts): Stepped {
  switch (event.is) {
    case 'down':
      return down(now, event, facts);
    case 'move':
      return move(now, event, facts);
    case 'up':
      return up(now, event, facts);
    case 'key':
      return key(now, event.key, facts);
    case 'ended':
      return isBound(now) ? stay(IDLE, { do: 'clear' }) : stay(now, { do: 'clear' });
  }
}

/** What goes with the statement that it belongs to. */
const isBound = ({ at }: Situation) => at === 'drawing' || at === 'point';

type Down = Extract<PointerEventData, { is: 'down' }>;

function down(now: Situation, event: Down, facts: Facts): Stepped {
  const { x, y, button, shift } = event;
  if (button === 1 || button === 2) {
    const how = shift ? 'pan' : 'orbit';
    return stay({ at: 'navigating', how, x, y, then: now }, { do: 'look', how });
  }
  if (button !== 0 || facts.isBusy()) return stay(now);
  if (now.at === 'drawing') return stay({ ...now, press: { x, y } });
  if (now.at !== 'idle') return stay(now);
  const first = facts.drawsFrom();
  if (first !== null) {
    const next = facts.nextStep(first);
    return stay({ at: 'drawing', step: next, press: { x, y }, isFirst: true }, { do: 'give', step: first });
  }
  return stay({ at: 'pressed', on: facts.held(), x, y });
}

function move(now: Situation, { x, y }: Pixel, facts: Facts): Stepped {
  switch (now.at) {
    case 'navigating': {
      const turn = now.how === 'orbit' ? 'turn' : 'shift';
      return stay({ ...now, x, y }, { do: turn, dx: x - now.x, dy: y - now.y });
    }
    case 'pressed':
      return isFar(now, { x, y }) ? dragged(now, facts) : stay(now);
    case 'region':
      return stay(now, { do: 'drawRegion' });
    case 'fence':
      return stay(now, { do: 'showFence' });
    default:
      return stay(now, { do: 'follow' });
  }
}

/** A press that moves becomes a drag of what lay under it. */
function dragged(now: Extract<Situation, { at: 'pressed' }>, facts: Facts): Stepped {
  const { x, y, on } = now;
  if (on === 'grip') return stay({ at: 'gripping' }, { do: 'takeGrip', x, y });
  if (on === 'handle') return stay({ at: 'point' }, { do: 'takePoint', x, y });
  return facts.takesRegions() ? stay({ at: 'region' }, { do: 'beginRegion', x, y }) : stay(now);
}

function up(now: Situation, event: Extract<PointerEventData, { is: 'up' }>, facts: Facts): Stepped {
  if (now.at === 'navigating') return stay(now.then, { do: 'follow' });
  if (event.button !== 0) return stay(now);
  switch (now.at) {
    case 'pressed':
      return stay(IDLE, { do: 'click' });
    case 'gripping':
      return stay(IDLE, { do: 'letGo' });
    case 'point':
      return stay(IDLE, { do: 'letPointGo' });
    case 'region':
      return facts.isFence() ? stay({ at: 'fence' }, { do: 'fenceCorner' }) : stay(IDLE, { do: 'endRegion' });
    case 'fence':
      return stay(now, { do: 'fenceCorner' });
    case 'drawing':
      return released(now, event, facts);
    default:
      return stay(now);
  }
}

/** A click gives one place; a drag from the first place gives the next one where it ends. */
function released(now: Extract<Situation, { at: 'drawing' }>, event: Pixel, facts: Facts): Stepped {
  if (!now.press) return stay(now);
  if (now.step === null) return stay(IDLE, { do: 'finish' });
  const isClick = !isFar(now.press, event);
  if (now.isFirst && isClick) return stay({ ...now, press: null, isFirst: false });
  return given(now.step, facts);
}

/** A place for a step; after the last one the statement is carried out. */
function given(at: number, facts: Facts): Stepped {
  const next = facts.nextStep(at);
  if (next === null) return stay(IDLE, { do: 'give', step: at }, { do: 'finish' });
  return stay({ at: 'drawing', step: next, press: null, isFirst: false }, { do: 'give', step: at });
}

function key(now: Situation, name: string, facts: Facts): Stepped {
  if (now.at === 'fence') {
    if (name === 'Enter') return stay(IDLE, { do: 'endRegion' });
    if (name === 'Backspace') return stay(now, { do: 'lastCornerBack' });
    if (name === 'Escape') return stay(IDLE, { do: 'clear' });
  }
  // What is shown is taken, as by a click.
  if (now.at === 'drawing' && name === 'Enter' && now.step !== null) return entered(now.step, facts);
  return stay(now);
}

/** Enter ends a gesture that would go round again. */
function entered(at: number, facts: Facts): Stepped {
  if (facts.isRoundDone(at)) return stay(IDLE, { do: 'finish' });
  const next = facts.nextStep(at);
  const isLast = next !== null && next <= at;
  return isLast ? stay(IDLE, { do: 'give', step: at }, { do: 'finish' }) : given(at, facts);
}
