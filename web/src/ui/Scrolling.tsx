import type { CSSProperties, ReactNode, Ref } from 'react';

interface ScrollingProps {
  name: string;
  className: string;
  ref?: Ref<HTMLDivElement>;
  style?: CSSProperties;
  children: ReactNode;
}

/** What scrolls when it has no room. It can be reached by keyboard from its first moment, not only once its size is known. */
export function Scrolling({ name, className, ref, style, children }: ScrollingProps) {
  return (
    <div ref={ref} className={className} style={style} role="region" aria-label={name} tabIndex={0}>
      {children}
    </div>
  );
}
