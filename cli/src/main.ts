import { mkdir, readdir, rename, stat, writeFile } from "node:fs/promises";
import { availableParallelism } from "node:os";
import { basename, dirname, extname, join } from "node:path";
import { plainText } from "@ash-edge/core/numeric";
import { COMMANDS, readArguments, USAGE, type Arguments } from "./arguments.ts";
import { checkText, type CheckReport } from "./check.ts";
import { reportText, type Report } from "./report.ts";
import { Unusable } from "./unusable.ts";
import { READ_EXTENSIONS, workSafely, type Tried } from "./work.ts";

const VERSION = "0.1.0";

/** Runs the command line and returns its exit code: 0 ready, 1 findings remain, 2 unusable. */
export const main = async (words: readonly string[]): Promise<0 | 1 | 2> => {
  try {
    const [name, ...rest] = words;
    if (name === "--version" || rest.includes("--version")) {
      process.stdout.write(`${VERSION}\n`);
      return 0;
    }
    if (name === "--help" || rest.includes("--help")) {
      process.stdout.write(USAGE);
      return 0;
    }
    const command = COMMANDS.find((one) => one === name);
    if (!command) throw new Unusable(name ? `${name} is no command; see --help` : "a command is missing; see --help");
    const options = readArguments(command, rest);
    const one = await alone(options);
    if (!one) return await runAll(options);
    const { code, text } = one;
    process.stdout.write(text.split("\n").map(plainText).join("\n"));
    return code;
  } catch (reason) {
    if (!(reason instanceof Unusable)) throw reason;
    return complain(reason);
  }
};

/** What the commands say that take one job, or two files, and no folders; each is read in only where it is wanted. */
const alone = async (options: Arguments): Promise<{ readonly code: 0 | 1; readonly text: string } | undefined> => {
  switch (options.command) {
    case "compare":
      return (await import("./compare.ts")).compareFiles(options);
    case "true":
      return (await import("./makeTrue.ts")).makeJobTrue(options);
    case "release":
      return (await import("./release.ts")).releaseJob(options);
    case "sheet":
      return (await import("./sheet.ts")).sheetOf(options);
    default:
      return undefined;
  }
};

const complain = (reason: Unusable): 2 => {
  process.stderr.write(`ash-edge: ${plainText(reason.message)}\n`);
  return 2;
};

/** The files that the inputs name: files themselves, and what can be read in folders. */
const filesOf = async (
  inputs: readonly string[],
  jobs: boolean,
): Promise<{ files: readonly string[]; many: boolean }> => {
  const files: string[] = [];
  let many = inputs.length > 1;
  for (const input of inputs) {
    const found = await stat(input).catch(() => undefined);
    if (!found?.isDirectory()) {
      files.push(input);
      continue;
    }
    many = true;
    const names = await readdir(input);
    for (const name of names.sort())
      if (READ_EXTENSIONS.has(extname(name).toLowerCase()) || (jobs && /\.ashedge\.json$/i.test(name)))
        files.push(join(input, name));
  }
  if (files.length === 0) throw new Unusable(`${inputs[0]}: there is no file in it that can be read`);
  return { files, many };
};

/**
 * Every file on its own, several of them over worker threads; what is told keeps their order. One that can't be used is
 * said and never stops the rest. The worst exit code counts.
 */
const runAll = async (options: Arguments): Promise<0 | 1 | 2> => {
  const { files, many } = await filesOf(options.inputs, options.command === "check");
  if (many && options.out === "-") throw new Unusable("-o - takes one file; give a folder for several");
  const into = options.out === undefined || options.out === "-" ? ".dxf" : extensionOf(options.out, many);
  const pool = files.length > 1 ? await poolFor(files.length) : undefined;
  const names = uniqueNames(files);
  const tries = files.map((file) => (pool ? pool.run({ file, options, into }) : workSafely(file, options, into)));
  for (const one of tries) one.catch(() => undefined); // each is waited for below, in order
  const reports: ((Report | CheckReport) & { file?: string })[] = [];
  let worst: 0 | 1 | 2 = 0;
  try {
    for (const [i, file] of files.entries()) {
      try {
        const tried = await tries[i]!;
        if ("unusable" in tried) throw new Unusable(tried.unusable);
        const { report, text } = tried.worked;
        const written =
          text === undefined ? undefined : write(text, many ? join(options.out!, names[i]!) : options.out!, many);
        // put into words while it is written, and said when it is
        const told = options.json || options.out === "-" ? "" : `${many ? `${file}\n` : ""}${textOf(report)}`;
        await written;
        reports.push(many ? { file, ...report } : report);
        // names in files are no words for a terminal
        process.stdout.write(told.split("\n").map(plainText).join("\n"));
        worst = Math.max(worst, report.ready ? 0 : 1) as 0 | 1 | 2;
      } catch (reason) {
        if (!(reason instanceof Unusable)) throw reason;
        worst = complain(reason);
      }
    }
  } finally {
    await pool?.destroy();
  }
  if (options.json && (many || reports.length > 0))
    process.stdout.write(`${JSON.stringify(many ? reports : reports[0])}\n`);
  return worst;
};

const textOf = (report: Report | CheckReport): string => ("verdict" in report ? checkText(report) : reportText(report));

type Task = { readonly file: string; readonly options: Arguments; readonly into: string };
const WORKER = new URL("../bin/work.mjs", import.meta.url).href;

/** As many threads as there are processors, no more than files; read in only where they are wanted. */
const poolFor = async (
  files: number,
): Promise<{ run: (task: Task) => Promise<Tried>; destroy: () => Promise<void> }> => {
  const { Piscina } = await import("piscina");
  return new Piscina<Task, Tried>({
    filename: WORKER,
    maxThreads: Math.max(1, Math.min(files, availableParallelism())),
  });
};

const WRITTEN_EXTENSIONS: ReadonlySet<string> = new Set([...READ_EXTENSIONS, ".csv"]);

/** What is written, by the extension of OUT; into a folder DXF. */
const extensionOf = (out: string, many: boolean): string => {
  if (many) return ".dxf";
  const extension = extname(out).toLowerCase();
  if (!WRITTEN_EXTENSIONS.has(extension))
    throw new Unusable(`${out}: files ending in .dxf, .svg and .csv can be written`);
  return extension;
};

/** What each file is called in a folder: no two alike, also where large and small letters are one. */
const uniqueNames = (files: readonly string[]): readonly string[] => {
  const taken = new Set<string>();
  return files.map((file) => {
    const name = basename(file, extname(file));
    let own = `${name}.dxf`;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${name}-${n}.dxf`;
    taken.add(own.toLowerCase());
    return own;
  });
};

/** Written beside its place first, so that a file that stands there is whole at any time. */
const write = async (text: string, out: string, many: boolean): Promise<void> => {
  if (out === "-") return void process.stdout.write(text);
  try {
    if (many) await mkdir(dirname(out), { recursive: true });
    const beside = `${out}.part`;
    await writeFile(beside, text);
    await rename(beside, out);
  } catch (reason) {
    throw new Unusable(`${out}: it can't be written there (${(reason as NodeJS.ErrnoException).code ?? "unknown"})`);
  }
};
