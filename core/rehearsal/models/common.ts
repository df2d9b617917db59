/** A value that rests, as a stretch. */
export const steady = (y: number, t: number) => ({ t0: t, y, dy: 0, ddy: 0 });

const none: readonly never[] = [];

/** What a device that neither senses nor times anything answers. */
export const nothing = { moves: false, sense: () => none, wake: () => Infinity, thresholds: () => none };
