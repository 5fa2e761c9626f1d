// The colours of the drawings on paper: the light theme's, readable in black and white as well.
const PAPER: Readonly<Record<string, string>> = {
  ink: "#18242a",
  sheet: "#ffffff",
  pine: "#1d4b43",
  "body-near": "#3b484c",
  "body-far": "#c4bfab",
  "body-trunk": "#87918d",
  "body-shorts": "#5f6f74",
  "body-far-shorts": "#aca68f",
  couch: "#cfc7b0",
  "bone-edge": "#59666a",
  "figure-ground": "#ffffff",
  skin: "#f6f0e4",
  far: "#e4dac6",
  shade: "#ebe2d0",
  near: "#faf6ec",
  contour: "#6b6353",
  quiet: "#ae9f82",
  nail: "#fbf7ee",
  bone: "#efe9da",
  "bone-line": "#c3b69b",
  band: "#b8862b",
  "band-line": "#b09c69",
  tendon: "#e6d8b9",
};

export const INK = { left: "#1b5f8c", right: "#9a4a1c" } as const;

/** What is drawn by the theme's names, in the colours of paper. A name nobody knows is an error. */
export const onPaper = (drawn: string): string =>
  drawn.replaceAll(/var\(--([a-z-]+)\)/g, (_whole, name: string) => {
    const colour = PAPER[name];
    if (!colour) throw new Error(`paper has no colour called ${name}`);
    return colour;
  });
