// The drawings themselves: each comes when it is first shown.
const FILES = import.meta.glob<string>("./drawings/*.svg", { query: "?raw", import: "default" });

/** What stands inside the drawing of a view, with or without what lies under the skin. */
export async function drawingOf(view: string, bones: boolean): Promise<string> {
  const load = (bones && FILES[`./drawings/${view}_bones.svg`]) || FILES[`./drawings/${view}.svg`];
  if (!load) throw new Error(`no drawing of ${view}`);
  const whole = await load();
  return whole.slice(whole.indexOf(">") + 1, whole.lastIndexOf("</svg>"));
}

export const hasBones = (view: string): boolean => `./drawings/${view}_bones.svg` in FILES;
