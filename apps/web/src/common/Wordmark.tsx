/** The name of the workshop as it is written. */
export function Wordmark({ large = false }: { large?: boolean }) {
  return (
    <span
      className={large ? 'text-[28px] font-bold' : 'text-[16px] font-bold'}
      style={{ fontStretch: '112%' }}
    >
      kadrel<span className="text-plum">.</span>
    </span>
  );
}
