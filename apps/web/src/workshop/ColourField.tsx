import { useEffect, useRef } from 'react';

/** The colour of a part. */
export function ColourField({
  colour,
  commit,
}: {
  colour: string | undefined;
  commit: (colour: string) => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const input = field.current;
    if (!input) return;
    // The browser's picker says `change` once, when it is closed; React's own event comes with every shade.
    const onChange = () => commit(input.value);
    input.addEventListener('change', onChange);
    return () => input.removeEventListener('change', onChange);
  }, [commit]);
  return (
    <label className="inline-flex items-center gap-2">
      <input
        ref={field}
        key={colour}
        type="color"
        aria-label="Colour"
        className="h-6 w-10 rounded border border-rule bg-sheet"
        defaultValue={colour ?? '#cccccc'}
      />
      <span className="num text-ink2">{colour ?? 'several'}</span>
    </label>
  );
}
