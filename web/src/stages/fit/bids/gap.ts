/** From here on it is said how far a point may lie under the best, a share. */
const seen = 0.005;

/** Whether a gap is wide enough to be said. */
export const shows = (gap: number): boolean => gap >= seen;
