import { useState } from "react";
import type { PaperSize } from "./queries";

const KEPT = "north-stride/paper";

/** What this device's printer holds. */
export function usePaperSize(): [PaperSize, (size: PaperSize) => void] {
  const [size, setSize] = useState<PaperSize>(() =>
    window.localStorage.getItem(KEPT) === "us-letter" ? "us-letter" : "a4",
  );
  return [
    size,
    (next) => {
      window.localStorage.setItem(KEPT, next);
      setSize(next);
    },
  ];
}
