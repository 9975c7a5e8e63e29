// A worker thread of the command line: TypeScript is made readable first.
import { register } from "tsx/esm/api";

register();
const { workSafely } = await import("../src/work.ts");
export default ({ file, options, into }) => workSafely(file, options, into);
