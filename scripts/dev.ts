// The server with the demo data and the page with live reload, side by side; both end with this process.
import { spawn } from "node:child_process";

const children = [
  spawn("npx", ["tsx", "watch", "server/src/main.ts", "--demo"], { stdio: "inherit" }),
  spawn("npx", ["vite", "--port", "5173"], { stdio: "inherit", cwd: "web" }),
];
const stop = (): void => children.forEach((child) => void child.kill());
process.on("SIGINT", stop);
process.on("SIGTERM", stop);
for (const child of children) child.on("exit", stop);
