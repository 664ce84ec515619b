import { Modal } from '../common/Modal.tsx';
import { VERBS } from '@kadrel/core';
import { KEY_LINES } from './keyList.ts';

const POINTER: readonly (readonly [string, string])[] = [
  ['Left click', 'Select; Shift adds, Ctrl toggles, Alt takes away'],
  ['Left drag', 'Select by a region, pull a grip, draw'],
  ['Middle or right drag', 'Orbit; with Shift pan'],
  ['Wheel', 'Zoom to the pointer'],
  ['Resting on a point', 'Touches it: guide rays run through it; Esc lets go of them'],
  ['A number on a guide', 'The distance along it from what was touched'],
  ['Ctrl while dragging', 'No snaps, no grid, for the moment'],
];

/** All keys, made from the verbs' declarations. */
export function Shortcuts({ isOpen, close }: { isOpen: boolean; close: () => void }) {
  const verbs = VERBS.flatMap(({ key, name }) => (key ? [[key, name] as const] : []));
  return (
    <Modal isOpen={isOpen} close={close} title="Keys" width="w-[1080px]">
      <div className="grid gap-8 md:grid-cols-[170px_1fr_270px]">
        <Keys title="Verbs" rows={verbs} />
        <Keys title="Working" rows={KEY_LINES} />
        <Keys title="Pointer" rows={POINTER} />
      </div>
      <div className="mt-4 flex justify-end">
        <button type="button" className="button" onClick={close}>
          Close
        </button>
      </div>
    </Modal>
  );
}

function Keys({ title, rows }: { title: string; rows: readonly (readonly [string, string])[] }) {
  return (
    <section>
      <h3 className="mb-2 font-semibold">{title}</h3>
      <dl className="columns-[240px] gap-6">
        {rows.map(([key, about]) => (
          <div key={key} className="flex break-inside-avoid items-baseline gap-2 pb-1.5">
            <dt className="shrink-0">
              <kbd className="key">{key}</kbd>
            </dt>
            <dd className="text-ink2">{about}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
