/** File names are no longer than so many characters, their extension included. */
export const NAME_LENGTH = 120;

/** A file name of what a job is called: only what every file system takes, cut where it gets too long. */
export const fileName = (words: string, extension: string): string => {
  const plain = words.replace(/[^\w.-]+/g, "-").replace(/^[-._]+/, "");
  return `${plain.slice(0, NAME_LENGTH - extension.length) || "job"}${extension}`;
};

/** Offers bytes or text as a download. */
export const saveAs = (name: string, content: string | Uint8Array, type: string): void => {
  const url = URL.createObjectURL(new Blob([typeof content === "string" ? content : content.slice()], { type }));
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
};
