import type { ReactNode, Ref } from 'react';

/** What scrolls when it has no room. It can be reached by keyboard from its first moment, not only once its size is known. */
export function Scrolling({ name, className, ref, children }: { name: string; className: string; ref?: Ref<HTMLDivElement>; children: ReactNode }) {
  return (
    <div ref={ref} className={className} role="region" aria-label={name} tabIndex={0}>
      {children}
    </div>
  );
}
