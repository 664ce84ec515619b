import { Library } from 'lucide-react';
import { useSession, useSessionState } from '../context.ts';
import { useRoom } from '../useRoom.ts';

/** Opens the racks. */
export function RackButton() {
  const session = useSession();
  const isSmall = useRoom() === 'small';
  const isOpen = useSessionState((state) => state.isRackOpen);
  return (
    <button
      type="button"
      className="quiet"
      aria-pressed={isOpen}
      title="Parts at hand: take one, or put one there"
      onClick={() => (isOpen ? session.closeRacks() : session.openRacks())}
    >
      {isSmall ? <Library size={14} aria-label="Racks" /> : 'Racks'}
    </button>
  );
}
