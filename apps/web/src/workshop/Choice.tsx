import clsx from 'clsx';

/** One of a few words, in a row of the Spec. */
export function Choice<T extends string>({
  label,
  heard = label,
  chosen,
  choices,
  choose,
}: {
  label: string;
  /** Its name for those who hear it. */
  heard?: string;
  chosen: T;
  choices: Readonly<Record<T, string>>;
  choose: (choice: T) => void;
}) {
  return (
    <div className="grid grid-cols-[76px_1fr] items-center gap-1.5 px-3.5 py-[3px]">
      <span>{label}</span>
      <div role="group" aria-label={heard} className="inline-flex overflow-hidden rounded border border-rule">
        {(Object.entries(choices) as [T, string][]).map(([choice, words]) => (
          <button
            key={choice}
            type="button"
            aria-pressed={choice === chosen}
            className={clsx('flex-1 px-2 py-0.5', choice === chosen ? 'bg-ink text-paper' : 'text-ink2')}
            onClick={() => choose(choice)}
          >
            {words}
          </button>
        ))}
      </div>
    </div>
  );
}
