/** SHA-256 of some bytes in hex; empty where the browser offers none (outside https and localhost). */
export const checksumOf = async (bytes: Uint8Array): Promise<string> => {
  if (!globalThis.crypto?.subtle) return "";
  const digest = await crypto.subtle.digest("SHA-256", bytes.slice().buffer);
  return [...new Uint8Array(digest)].map((byte) => byte.toString(16).padStart(2, "0")).join("");
};
