/** A time of a run in words: seconds up to two minutes, then minutes and hours. */
export const timeWords = (seconds: number): string => {
  if (seconds < 120) return `${Number(seconds.toFixed(1))} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 120 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};
