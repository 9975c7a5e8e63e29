#!/usr/bin/env node
import { entry } from "./entry.mjs";

// what reads the output may stop, as head does: the work goes on, and the exit code says how it went
process.stdout.on("error", (reason) => {
  if (reason.code !== "EPIPE") throw reason;
});
const { main } = await entry("main");
process.exitCode = await main(process.argv.slice(2));
