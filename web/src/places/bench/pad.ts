// The number pad's keys as changes of the text being typed. The last trial is the one in hand.
const MINUS = "−";

const split = (text: string): [string, string] => {
  const at = text.lastIndexOf(" ") + 1;
  return [text.slice(0, at), text.slice(at)];
};

export const press = (text: string, key: string): string => {
  const [before, last] = split(text);
  if (key === "." && last.includes(".")) return text;
  return before + last + key;
};

export const backspace = (text: string): string => text.slice(0, -1);

/** A space ends a trial; two make no empty one. */
export const nextTrial = (text: string): string =>
  text === "" || text.endsWith(" ") ? text : `${text} `;

export const isBelow = (text: string): boolean => /^[-−]/.test(split(text)[1]);

export function setBelow(text: string, below: boolean): string {
  const [before, last] = split(text);
  const bare = last.replace(/^[-−+]/, "");
  return before + (below ? MINUS : "") + bare;
}
