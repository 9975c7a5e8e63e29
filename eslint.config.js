import { readFileSync } from "node:fs";
import js from "@eslint/js";
import boundaries from "eslint-plugin-boundaries";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** A floor may use those below it, never those above or beside it; the core has no DOM, no React and no Node. */
const floor = (files, forbidden, globals = [], more = []) => ({
  files,
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: [
          ...forbidden.map((group) => ({ group: [group], message: "That floor is out of reach from here." })),
          ...more,
        ],
      },
    ],
    "no-restricted-globals": ["error", ...globals],
  },
});
const outside = ["react", "react/*", "react-*", "konva", "dexie", "express", "node:*"];
const browser = [
  "window",
  "document",
  "navigator",
  "localStorage",
  "indexedDB",
  "self",
  "process",
  "Buffer",
  "setTimeout",
];

/** The rooms of the core from the bottom up: each may use those before it. */
const ROOMS = Object.keys(JSON.parse(readFileSync(new URL("core/rooms.json", import.meta.url), "utf8")));
const rooms = {
  files: ["core/src/*/**/*.ts"],
  ignores: ["**/*.test.ts", "core/src/testing/**"],
  plugins: { boundaries },
  settings: {
    "boundaries/elements": ROOMS.map((type) => ({ type, pattern: `core/src/${type}` })),
    "import/resolver": { node: { extensions: [".ts"] } },
  },
  rules: {
    "boundaries/no-unknown-files": "error",
    "boundaries/dependencies": [
      "error",
      {
        default: "disallow",
        policies: [
          { allow: { to: { module: { origin: "external" } } } },
          ...ROOMS.map((type, i) => ({
            from: { element: { type } },
            allow: { to: { element: { types: { anyOf: ROOMS.slice(0, i + 1) } } } },
          })),
        ],
      },
    ],
  },
};

export default tseslint.config(
  { ignores: ["**/dist/**", "**/.types/**", "**/node_modules/**", "**/test-results/**", "**/playwright-report/**"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      "@typescript-eslint/no-non-null-assertion": "off",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_+$" }],
      eqeqeq: "error",
      // what the formatter can't break: comments and strings
      "max-len": ["error", { code: 120 }],
      "no-undef": "off",
    },
  },
  {
    // an argument for each of many thousand things overflows the stack
    files: ["*/src/**/*.{ts,tsx}"],
    ignores: ["**/*.test.{ts,tsx}"],
    rules: {
      "no-restricted-syntax": [
        "error",
        {
          selector: "CallExpression[callee.property.name=/^(push|unshift|max|min|apply)$/] > SpreadElement",
          message: "Its cost and its stack grow with what is spread: use a loop, greatest or least.",
        },
      ],
    },
  },
  rooms,
  floor(["core/src/**/*.ts"], ["@ash-edge/*", "**/web/**", "**/server/**", "**/cli/**", ...outside], browser),
  { files: ["core/src/**/*.test.ts"], rules: { "no-restricted-globals": "off" } },
  floor(
    ["tools/src/**/*.ts"],
    ["@ash-edge/web*", "@ash-edge/server*", "@ash-edge/cli*", "**/web/**", ...outside],
    browser,
  ),
  floor(
    ["cli/**/*.ts"],
    ["@ash-edge/web*", "@ash-edge/server*", "@ash-edge/tools*", "**/web/**", "**/server/**", "react*"],
  ),
  floor(["server/**/*.ts"], ["@ash-edge/web*", "@ash-edge/cli*", "**/web/src/**", "**/cli/**", "react*"]),
  floor(["web/**/*.{ts,tsx}"], ["@ash-edge/server*", "@ash-edge/cli*", "**/server/**", "**/cli/**", "node:*"]),
  { files: ["web/**/*.{ts,tsx}"], ...hooks.configs.flat["recommended-latest"] },
  // the compiler that skips what it can't memoise is not used here
  { files: ["web/**/*.{ts,tsx}"], rules: { "react-hooks/incompatible-library": "off" } },
);
