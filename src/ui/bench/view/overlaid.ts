import { useEffect, useRef } from "react";

/** Tells how much of the view something takes that lies over it, pixels; again whenever that changes. */
export function useOverlaid(tell: (width: number, height: number) => void) {
  const ref = useRef<HTMLDivElement>(null);
  const told = useRef(tell);
  useEffect(() => {
    told.current = tell;
  });
  useEffect(() => {
    const el = ref.current;
    if (!el) return;
    const watch = new ResizeObserver(() => told.current(el.offsetWidth, el.offsetHeight));
    watch.observe(el);
    told.current(el.offsetWidth, el.offsetHeight);
    return () => watch.disconnect();
  }, []);
  return ref;
}
