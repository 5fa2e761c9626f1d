// An archive as it comes: its files counted by the mark each begins with.
const MARK = [0x50, 0x4b, 0x03, 0x04];

/** How often the mark stands in a piece; `matched` is how much of one the piece before ended with. */
export function countMarks(piece: Uint8Array, matched: number): { count: number; matched: number } {
  let [count, at] = [0, matched];
  for (const byte of piece) {
    if (byte === MARK[at]) at += 1;
    else at = byte === MARK[0] ? 1 : 0;
    if (at === MARK.length) {
      count += 1;
      at = 0;
    }
  }
  return { count, matched: at };
}

/** The whole of it, told how many files have begun. Ends with an error where it was given up. */
export async function gathered(
  pieces: ReadableStream<Uint8Array>,
  onFiles: (begun: number) => void,
): Promise<Blob> {
  const parts: Uint8Array<ArrayBuffer>[] = [];
  const reader = pieces.getReader();
  let [begun, matched] = [0, 0];
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return new Blob(parts, { type: "application/zip" });
    const found = countMarks(value, matched);
    matched = found.matched;
    begun += found.count;
    onFiles(begun);
    parts.push(new Uint8Array(value));
  }
}
