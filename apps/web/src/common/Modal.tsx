import { Dialog, DialogPanel, DialogTitle } from '@headlessui/react';
import clsx from 'clsx';
import type { ReactNode } from 'react';

interface ModalProps {
  readonly isOpen: boolean;
  readonly close: () => void;
  readonly title: ReactNode;
  /** A class. */
  readonly width: string;
  readonly children: ReactNode;
}

/** A dialog over the page, with its title. */
export function Modal({ isOpen, close, title, width, children }: ModalProps) {
  return (
    <Dialog open={isOpen} onClose={close} className="relative z-50">
      <div className="fixed inset-0 flex items-center justify-center bg-black/30 p-4">
        <DialogPanel
          className={clsx('max-h-full overflow-auto rounded-lg border border-rule bg-sheet p-6', width)}
        >
          <DialogTitle className="mb-4 text-[17px] font-bold">{title}</DialogTitle>
          {children}
        </DialogPanel>
      </div>
    </Dialog>
  );
}
