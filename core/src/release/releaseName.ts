/** The name of a release without its extension: the job's number and part, and which release it is; plain letters. */
export const releaseName = (job: string, part: string, release: number, most: number): string => {
  const words = `${job} ${part}`.replace(/[^\w]+/g, "-").toLowerCase();
  const end = ` r${release}`;
  return `${words.slice(0, most - end.length)}${end}`.replace(/[^\w]+/g, "-").replace(/^[-_]+/, "");
};
