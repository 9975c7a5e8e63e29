/** Angles: radians inside, counter-clockwise positive, 0 along +x; degrees only where people read or type. */

export const TURN = 2 * Math.PI;

/** Radians as degrees. */
export const toDegrees = (radians: number): number => (radians * 180) / Math.PI;
/** Degrees as radians. */
export const toRadians = (degrees: number): number => (degrees * Math.PI) / 180;

/** `angle` brought into [0, 2π). */
export const normalAngle = (angle: number): number => {
  const turned = angle % TURN;
  const positive = turned < 0 ? turned + TURN : turned;
  return positive >= TURN ? 0 : positive;
};

/** `angle` brought into (-π, π]. */
export const signedAngle = (angle: number): number => {
  const positive = normalAngle(angle);
  return positive > Math.PI ? positive - TURN : positive;
};

/** The unit vector at `angle`; exactly level or upright at multiples of a quarter turn, where cos and sin are not. */
export const unitAt = (angle: number): { readonly x: number; readonly y: number } => {
  const quarters = angle / (Math.PI / 2);
  if (Number.isInteger(quarters)) {
    const quarter = ((quarters % 4) + 4) % 4;
    return { x: [1, 0, -1, 0][quarter]!, y: [0, 1, 0, -1][quarter]! };
  }
  return { x: Math.cos(angle), y: Math.sin(angle) };
};
