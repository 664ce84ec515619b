import { useSession, useSessionState } from '../context.ts';

/** Opens the racks. */
export function RackButton() {
  const session = useSession();
  const isOpen = useSessionState((state) => state.isRackOpen);
  return (
    <button
      type="button"
      className="quiet"
      aria-pressed={isOpen}
      title="Parts at hand: take one, or put one there"
      onClick={() => (isOpen ? session.closeRacks() : session.openRacks())}
    >
      Racks
    </button>
  );
}
