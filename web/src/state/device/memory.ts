// A keep that lasts as long as the page, and two tabs' over one device: for tests.
import type { Keep } from "./keep";
import { KeyIndex } from "./key_index";

export const memory = (): Keep => tabs(1)[0] as Keep;

/** The keeps of two tabs: what one changes the other is told. */
export const twoTabs = () => tabs(2) as [Keep, Keep];

function tabs(count: number): Keep[] {
  const index = new KeyIndex();
  const heard = Array.from({ length: count }, () => new Set<(key: string) => void>());
  return heard.map((own) => {
    const tell = (key: string) => {
      for (const others of heard) {
        if (others !== own) for (const listener of others) listener(key);
      }
    };
    return {
      getItem: (key) => index.get(key),
      setItem: (key, value) => {
        index.set(key, value);
        tell(key);
      },
      removeItem: (key) => {
        index.delete(key);
        tell(key);
      },
      under: (prefix) => index.under(prefix),
      onForeign: (listener) => {
        own.add(listener);
        return () => own.delete(listener);
      },
    };
  });
}
