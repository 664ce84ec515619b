/** A small button in a row: a picture that says in words what it does. */
import type { MouseEvent, ReactNode } from 'react';

interface IconButtonProps {
  /** What it does and to what, for whoever does not see the row. */
  readonly label: string;
  /** What it does, shown where the pointer rests. */
  readonly title: string;
  readonly onClick: (event: MouseEvent<HTMLButtonElement>) => void;
  readonly children: ReactNode;
}

export const IconButton = ({ label, title, onClick, children }: IconButtonProps) => (
  <button
    type="button"
    className="text-ink2 hover:text-plum"
    aria-label={label}
    title={title}
    onClick={onClick}
  >
    {children}
  </button>
);
