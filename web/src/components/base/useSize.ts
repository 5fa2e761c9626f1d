import { type RefObject, useLayoutEffect, useRef, useState } from "react";

/** The pixels an element has, followed as they change. */
export function useSize<T extends HTMLElement>(): {
  frame: RefObject<T | null>;
  size: { width: number; height: number };
} {
  const frame = useRef<T>(null);
  const [size, setSize] = useState({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const drawn = frame.current;
    if (!drawn) return;
    const watch = new ResizeObserver(() =>
      setSize({ width: drawn.clientWidth, height: drawn.clientHeight }),
    );
    watch.observe(drawn);
    return () => watch.disconnect();
  }, []);
  return { frame, size };
}
