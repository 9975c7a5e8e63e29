/** A time of a run in words: seconds up to two minutes, then minutes and seconds, then hours and minutes. */
export const timeWords = (seconds: number): string => {
  if (seconds < 120) return `${Number(seconds.toFixed(1))} s`;
  const whole = Math.round(seconds);
  if (whole < 7200) return `${Math.floor(whole / 60)} min ${whole % 60} s`;
  const minutes = Math.round(seconds / 60);
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};
