/** Selecting: the shape and the rule of a region, what a click does, and selecting by what parts are. */
import { Popover, PopoverButton } from '@headlessui/react';
import { LIKENESSES, type Likeness } from '@kadrel/core';
import { useState } from 'react';
import { REGION_SHAPES, SELECTINGS, type Manner } from '../session/manner.ts';
import { Panel } from './Panel.tsx';
import { useSession, useSessionState } from './context.ts';
import { useRoom } from './useRoom.ts';
import { ChoiceRow } from './toggles.tsx';

const same = <T extends string>(values: readonly T[]) => values.map((value) => [value, value] as const);

/** How one selects. */
export function Select() {
  const session = useSession();
  const manner = useSessionState((state) => state.manner);
  const set = (change: Partial<Manner>) => session.setManner(change);
  const isWide = useRoom() === 'wide';
  return (
    <Popover>
      <PopoverButton className="quiet text-[12px] whitespace-nowrap" title="How parts are selected">
        Select
        {isWide && (
          <b className="ml-1 font-semibold max-[1459px]:sr-only">
            {manner.shape} · {manner.rule}
          </b>
        )}
      </PopoverButton>
      <Panel label="Select" className="w-[480px]">
        <ChoiceRow
          label="Region"
          value={manner.shape}
          options={same(REGION_SHAPES)}
          choose={(shape) => set({ shape })}
        />
        <ChoiceRow
          label="Takes"
          value={manner.taking}
          options={[
            ['parts', 'whole parts'],
            ['faces', 'faces of the selected part'],
            ['edges', 'its edges'],
            ['corners', 'its corners'],
          ]}
          choose={(taking) => set({ taking })}
        />
        <ChoiceRow
          label="That are"
          value={manner.rule}
          options={same(['touching', 'enclosed', 'by the drag'] as const)}
          choose={(rule) => set({ rule })}
        />
        <ChoiceRow
          label="Depth"
          value={manner.onlySeen ? 'seen' : 'through'}
          options={[
            ['through', 'through everything'],
            ['seen', 'only what is seen'],
          ]}
          choose={(depth) => set({ onlySeen: depth === 'seen' })}
        />
        <ChoiceRow
          label="A click will"
          value={manner.selecting}
          options={same(SELECTINGS)}
          choose={(selecting) => set({ selecting })}
        />
        {manner.shape === 'brush' && (
          <label className="menu-item">
            <span className="w-28 shrink-0 font-semibold">Brush</span>
            <input
              type="range"
              className="flex-1 accent-(--plum)"
              aria-label="Width of the brush"
              min={2}
              max={60}
              value={manner.brushPx}
              onChange={(event) => set({ brushPx: Number(event.target.value) })}
            />
            <span className="num w-14 text-right">{2 * manner.brushPx} px</span>
          </label>
        )}
        <p className="px-3 pb-1 text-[12px] text-ink2">
          {manner.shape === 'fence'
            ? 'Drag the first leg, click the corners; Enter or a click on the first corner closes it, Backspace takes a corner back.'
            : 'Shift adds, Ctrl toggles, Alt takes away.'}
        </p>
        <hr className="my-1 border-rule" />
        <ByKind />
      </Panel>
    </Popover>
  );
}

function ByKind() {
  const session = useSession();
  const selection = useSessionState((state) => state.selection);
  const [name, setName] = useState('');
  const none = selection.length === 0;
  const button = (words: string, work: () => void, needs?: 'selection') => (
    <button
      key={words}
      type="button"
      className="button text-[12px]"
      disabled={needs !== undefined && none}
      onClick={work}
    >
      {words}
    </button>
  );
  return (
    <div className="flex flex-col gap-1.5 px-3 py-1">
      <div className="flex flex-wrap gap-1" role="group" aria-label="Select parts">
        {button('All', session.selectAll)}
        {button('None', () => session.select([]))}
        {button('All others', session.selectOthers)}
        {button('Last made', () => session.selectLastMade())}
        {button('Last selection', session.selectLast)}
      </div>
      <div className="flex flex-wrap gap-1" role="group" aria-label="Select parts like these">
        {(Object.keys(LIKENESSES) as Likeness[]).map((how) =>
          button(
            LIKENESSES[how].replace(/^./, (c) => c.toUpperCase()),
            () => session.selectLike(how),
            'selection',
          ),
        )}
      </div>
      <form
        className="flex gap-1"
        onSubmit={(event) => {
          event.preventDefault();
          session.selectNamed(name);
        }}
      >
        <input
          className="field flex-1"
          aria-label="Part of a name"
          placeholder="Part of a name"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="button text-[12px]" disabled={name.trim() === ''}>
          Select by name
        </button>
      </form>
      <div className="flex flex-wrap gap-1" role="group" aria-label="Sight and lock">
        {button('Hide', () => void session.say('hide', { parts: selection }), 'selection')}
        {button(
          'Show only these',
          () => void session.say('show', { which: 'only', parts: selection }),
          'selection',
        )}
        {button('Show all', () => void session.say('show', { which: 'all' }))}
        {button('Lock', () => void session.say('lock', { parts: selection }), 'selection')}
        {button('Free', () => void session.say('lock', { parts: selection, state: 'free' }), 'selection')}
      </div>
    </div>
  );
}
