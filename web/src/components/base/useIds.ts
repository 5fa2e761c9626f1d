import { useRef } from "react";

/** One id for one content: sending the same again writes it once, another content is another thing. */
export function useIds(): (content: string) => string {
  const ids = useRef(new Map<string, string>());
  return (content) => {
    const own = ids.current.get(content) ?? crypto.randomUUID();
    ids.current.set(content, own);
    return own;
  };
}
