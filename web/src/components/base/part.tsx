// Code that comes when it is first needed. Asked for ahead, it stands there at once.
import { type ComponentType, useEffect, useState } from "react";

const AGAIN_MS = 2000;

export interface Part<P> {
  /** Fetches it now. Rejects where the server is away and the browser holds no copy. */
  load: () => Promise<void>;
  Place: ComponentType<P>;
}

interface MeanwhileProps {
  /** It could not be fetched, and is tried again. */
  waiting: boolean;
}

export function part<P extends object>(
  fetched: () => Promise<{ default: ComponentType<P> }>,
  Meanwhile: ComponentType<MeanwhileProps>,
): Part<P> {
  let Ready: ComponentType<P> | null = null;
  const load = async () => {
    Ready ??= (await fetched()).default;
  };

  function Place(props: P) {
    const [ready, setReady] = useState(Ready !== null);
    const [failed, setFailed] = useState(0);
    useEffect(() => {
      if (ready) return;
      let here = true;
      const go = () =>
        load().then(
          () => here && setReady(true),
          () => here && setFailed((count) => count + 1),
        );
      const timer = setTimeout(() => void go(), failed === 0 ? 0 : AGAIN_MS);
      return () => {
        here = false;
        clearTimeout(timer);
      };
    }, [ready, failed]);
    return ready && Ready ? <Ready {...props} /> : <Meanwhile waiting={failed > 0} />;
  }
  return { load, Place };
}
