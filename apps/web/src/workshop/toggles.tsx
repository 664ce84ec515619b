import clsx from 'clsx';

interface ToggleProps {
  readonly isOn: boolean;
  readonly word: string;
  readonly title: string;
  readonly toggle: () => void;
}

/** A word that is on or off. */
export function Toggle({ isOn, word, title, toggle }: ToggleProps) {
  return (
    <button
      type="button"
      aria-pressed={isOn}
      title={title}
      className={clsx(
        'rounded px-1.5 py-0.5 text-[12px] whitespace-nowrap',
        isOn ? 'bg-paper text-ink shadow-[inset_0_-2px_var(--plum)]' : 'text-ink3',
      )}
      onClick={toggle}
    >
      {word}
    </button>
  );
}

interface SwitchRowProps {
  readonly words: string;
  readonly about: string;
  readonly isOn: boolean;
  readonly toggle: () => void;
}

/** A line of a panel that is on or off. */
export function SwitchRow({ words, about, isOn, toggle }: SwitchRowProps) {
  return (
    <button type="button" role="switch" aria-checked={isOn} className="menu-item" onClick={toggle}>
      <span className="w-28 shrink-0 font-semibold">{words}</span>
      <span className="flex-1 text-ink2">{about}</span>
      <span className={clsx('w-8 text-right', isOn ? 'text-plum' : 'text-ink3')}>{isOn ? 'on' : 'off'}</span>
    </button>
  );
}

interface ChoiceRowProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly options: readonly (readonly [value: T, words: string])[];
  readonly choose: (value: T) => void;
}

/** A line of a panel with one of several words chosen. */
export function ChoiceRow<T extends string>({ label, value, options, choose }: ChoiceRowProps<T>) {
  return (
    <div className="flex items-center px-3 py-1" role="radiogroup" aria-label={label}>
      <span className="w-28 shrink-0 font-semibold">{label}</span>
      <span className="flex flex-wrap gap-0.5">
        {options.map(([option, words]) => (
          <button
            key={option}
            type="button"
            role="radio"
            aria-checked={option === value}
            className={clsx(
              'rounded px-1.5 py-0.5 text-[12px] whitespace-nowrap hover:bg-tint',
              option === value ? 'bg-tint font-semibold text-plum' : 'text-ink2',
            )}
            onClick={() => choose(option)}
          >
            {words}
          </button>
        ))}
      </span>
    </div>
  );
}
