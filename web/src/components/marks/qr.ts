// A code as squares: what the camera of another device reads.
import qrcode from "qrcode-generator";

export interface Squares {
  /** Squares on a side, with the quiet margin around. */
  size: number;
  /** One path of unit squares. */
  path: string;
}

const QUIET = 4;

export function squaresOf(text: string): Squares {
  const code = qrcode(0, "M");
  code.addData(text);
  code.make();
  const count = code.getModuleCount();
  const path: string[] = [];
  for (let row = 0; row < count; row++) {
    for (let column = 0; column < count; column++) {
      if (code.isDark(row, column)) path.push(`M${column + QUIET} ${row + QUIET}h1v1h-1z`);
    }
  }
  return { size: count + 2 * QUIET, path: path.join("") };
}
