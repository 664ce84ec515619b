/** A titled part of a panel. */
export function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section className="mt-2 border-t border-rule pb-1" aria-label={title}>
      <h3 className="panel-title">{title}</h3>
      {children}
    </section>
  );
}
