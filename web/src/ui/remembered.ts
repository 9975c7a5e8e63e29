/** What is remembered in this browser; undefined where it is not, or the browser lets nothing be remembered. */
export const remembered = (key: string): string | undefined => {
  try {
    return localStorage.getItem(key) ?? undefined;
  } catch {
    return undefined;
  }
};

/** Remembers a choice; a full or forbidden store forgets it, which is worth no alarm. */
export const remember = (key: string, text: string): void => {
  try {
    localStorage.setItem(key, text);
  } catch {
    // it is as it was before the next time
  }
};
