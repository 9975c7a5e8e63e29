/** Offers bytes or text as a download. */
export const saveAs = (name: string, content: string | Uint8Array, type: string): void => {
  const url = URL.createObjectURL(new Blob([typeof content === "string" ? content : content.slice()], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
};
