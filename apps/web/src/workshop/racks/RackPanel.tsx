/** The racks: parts at hand for every project, looked for by words or by what they fit, and taken by a click. */
import { LayoutGrid, Rows3, X } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useSession, useSessionState } from '../context.ts';
import { Newer } from './Newer.tsx';
import { PutOnRack } from './PutOnRack.tsx';
import { RackList } from './RackList.tsx';
import { outdatedIn, useRacks, type Wish } from './racks.ts';

/** All racks that are at hand. */
export function RackPanel() {
  const session = useSession();
  const document = useSessionState((state) => state.document);
  const { racks, trouble } = useRacks();
  const [wish, setWish] = useState<Wish>({ text: '', fits: '' });
  const [look, setLook] = useState<'words' | 'pictures'>('words');
  const outdated = useMemo(() => outdatedIn(document, racks), [document, racks]);
  return (
    <aside className="flex h-full flex-col overflow-y-auto bg-paper" aria-label="Racks">
      <h2 className="panel-title">
        <span className="flex-1">Racks</span>
        <button
          type="button"
          className="mr-2"
          aria-pressed={look === 'pictures'}
          aria-label="Pictures only"
          title={look === 'pictures' ? 'Rows with words' : 'Pictures only'}
          onClick={() => setLook(look === 'pictures' ? 'words' : 'pictures')}
        >
          {look === 'pictures' ? <Rows3 size={14} /> : <LayoutGrid size={14} />}
        </button>
        <button type="button" aria-label="Close the racks" onClick={() => session.closeRacks()}>
          <X size={14} />
        </button>
      </h2>
      {trouble !== null && (
        <p role="alert" className="mx-3.5 mb-2 text-bad">
          {trouble}
        </p>
      )}
      {outdated.map((one) => (
        <Newer key={one.item} outdated={one} />
      ))}
      <Wishes wish={wish} setWish={setWish} />
      <div className="min-h-24 flex-1 overflow-y-auto border-t border-rule">
        {racks.map((rack) => (
          <RackList key={rack.id ?? 'starter'} rack={rack} wish={wish} look={look} />
        ))}
      </div>
      <PutOnRack racks={racks} />
    </aside>
  );
}

/** What is looked for: by words, and by the kind of an open dock. */
function Wishes({ wish, setWish }: { readonly wish: Wish; readonly setWish: (wish: Wish) => void }) {
  const session = useSession();
  useSessionState((state) => state.built);
  const kinds = [...new Set(session.docksNow().report.open.map(({ dock }) => dock.kind))].filter(
    (kind) => kind !== '',
  );
  return (
    <div className="mx-3.5 mb-2 flex gap-1.5">
      <input
        type="search"
        className="field min-w-0 flex-1"
        aria-label="Find on the racks"
        placeholder="Find a part"
        value={wish.text}
        onChange={(event) => setWish({ ...wish, text: event.target.value })}
      />
      <select
        className="field min-w-0 flex-1"
        aria-label="Fits"
        title="What fits an open dock"
        value={wish.fits}
        onChange={(event) => setWish({ ...wish, fits: event.target.value })}
      >
        <option value="">fits anything</option>
        {kinds.map((kind) => (
          <option key={kind} value={kind}>
            fits {kind}
          </option>
        ))}
      </select>
    </div>
  );
}
