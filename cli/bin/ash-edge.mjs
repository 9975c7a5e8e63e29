#!/usr/bin/env node
import { entry } from "./entry.mjs";

const { main } = await entry("main");
process.exitCode = await main(process.argv.slice(2));
