// A long row of pictures that grows as one scrolls: at first as many as fill a few screens.

import { useEffect, useRef, useState, type ReactNode } from 'react';

type Props<T> = { readonly items: readonly T[]; readonly children: (items: readonly T[]) => ReactNode };

const STEP = 36;
/** More are made when the end comes so near, in pixels. */
const NEAR = 900;

export function Growing<T>({ items, children }: Props<T>) {
  const [count, setCount] = useState(STEP);
  const end = useRef<HTMLDivElement>(null);
  const more = items.length > count;
  useEffect(() => {
    if (!more || !end.current) return;
    const seen = new IntersectionObserver(
      (entries) => entries.some(({ isIntersecting }) => isIntersecting) && setCount((n) => n + STEP),
      { rootMargin: `${NEAR}px` },
    );
    seen.observe(end.current);
    return () => seen.disconnect();
  }, [more, count]);
  return (
    <>
      {children(more ? items.slice(0, count) : items)}
      {more && <div ref={end} style={{ height: 1 }} />}
    </>
  );
}
