// A worker thread of the command line.
import { entry } from "./entry.mjs";

const { workSafely } = await entry("work");
export default ({ file, options, into }) => workSafely(file, options, into);
