import { Popover, PopoverButton } from '@headlessui/react';
import { Settings2 } from 'lucide-react';
import clsx from 'clsx';
import { Panel } from './Panel.tsx';
import { useSession, useSessionState } from './context.ts';
import { SwitchRow } from './toggles.tsx';

/** How the pointer drags: whether it may, what steps are counted from, and how large the grips are. */
export function Manner() {
  const session = useSession();
  const isSelectOnly = useSessionState((state) => state.isSelectOnly);
  const arePinsShown = useSessionState((state) => state.arePinsShown);
  const stepsFrom = useSessionState((state) => state.stepsFrom);
  const gripScale = useSessionState((state) => state.gripScale);
  const { factorStep } = useSessionState((state) => state.manner);
  return (
    <Popover>
      <PopoverButton
        className={clsx('quiet text-[12px] whitespace-nowrap', isSelectOnly && 'bg-tint text-plum')}
        title="How the pointer drags"
        aria-label="Pointer"
      >
        {isSelectOnly ? 'only selects' : <Settings2 size={15} />}
      </PopoverButton>
      <Panel label="Pointer" className="w-[460px]">
        <SwitchRow
          words="Only select"
          about="Nothing can be dragged (O)"
          isOn={isSelectOnly}
          toggle={() => session.set({ isSelectOnly: !isSelectOnly })}
        />
        <SwitchRow
          words="To the grid"
          about="Drags end on the grid, and turns on whole steps; off: whole steps from the start"
          isOn={stepsFrom === 'grid'}
          toggle={() => session.set({ stepsFrom: stepsFrom === 'grid' ? 'start' : 'grid' })}
        />
        <SwitchRow
          words="Pins"
          about="Show the pins"
          isOn={arePinsShown}
          toggle={() => session.set({ arePinsShown: !arePinsShown })}
        />
        <DocksSwitch />
        <label className="menu-item">
          <span className="w-28 shrink-0 font-semibold">Factor step</span>
          <span className="flex-1 text-ink2">What resizing by a corner goes in steps of</span>
          <input
            type="number"
            className="field num w-20"
            aria-label="Factor step"
            min={0.001}
            max={1}
            step={0.01}
            defaultValue={factorStep}
            onChange={(event) => {
              const step = Number(event.target.value);
              if (step > 0) session.setManner({ factorStep: step });
            }}
          />
        </label>
        <label className="menu-item">
          <span className="w-28 shrink-0 font-semibold">Grips</span>
          <input
            type="range"
            className="flex-1 accent-(--plum)"
            aria-label="Size of the grips"
            min={0.5}
            max={2.5}
            step={0.05}
            value={gripScale}
            onChange={(event) => session.set({ gripScale: Number(event.target.value) })}
          />
          <span className="num w-12 text-right">{Math.round(gripScale * 100)} %</span>
        </label>
      </Panel>
    </Popover>
  );
}

function DocksSwitch() {
  const session = useSession();
  const areDocksShown = useSessionState((state) => state.areDocksShown);
  return (
    <SwitchRow
      words="Docks"
      about="Show the docks; always while one is to be chosen"
      isOn={areDocksShown}
      toggle={() => session.set({ areDocksShown: !areDocksShown })}
    />
  );
}
