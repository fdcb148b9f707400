/** Typed and shown where no instant is chosen. */
export const HIGHEST = -1;

/** The settings with another instant; of the highest level if it is none. */
export const instantOf = (v: number) => ({ instantSeconds: v === HIGHEST ? null : v });
