import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { makeApp } from "./app.ts";

const root = dirname(dirname(dirname(fileURLToPath(import.meta.url))));
const port = Number(process.env.PORT ?? 4173);
const example = join(root, "server", "demo");
const demo = process.argv.includes("--demo") ? { demo: example } : {};

const inbox = join(root, "server", "inbox");

const server = makeApp({ site: join(root, "web", "dist"), inbox, example, ...demo }).listen(port, "127.0.0.1", () => {
  console.log(`Ash Edge is at http://localhost:${port}`);
});
server.on("error", (reason: NodeJS.ErrnoException) => {
  console.error(
    reason.code === "EADDRINUSE" ? `Port ${port} is taken. Set another one: PORT=4180 npm run demo` : reason.message,
  );
  process.exit(1);
});
