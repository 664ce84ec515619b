import { Portal } from '@headlessui/react';
import { useRef, type ReactNode } from 'react';

/** Menus and lists open in a region of the page, so that whoever goes from region to region comes by them. */
export function WithMenus({ children }: { children: ReactNode }) {
  const place = useRef<HTMLElement>(null);
  return (
    <>
      <Portal.Group target={place}>{children}</Portal.Group>
      <section ref={place} aria-label="Menus">
        {/* A place that is left empty is taken out of the page by those who open menus in it. */}
        <span hidden />
      </section>
    </>
  );
}
