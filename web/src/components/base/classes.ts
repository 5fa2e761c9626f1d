/** Class names put together; what is off leaves nothing. */
export const classes = (...names: (string | false | null | undefined)[]): string =>
  names.filter(Boolean).join(" ");
