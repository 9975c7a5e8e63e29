import js from "@eslint/js";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

/** A floor may use those below it, never those above or beside it; the core has no DOM, no React and no Node. */
const floor = (files, forbidden, globals = []) => ({
  files,
  rules: {
    "no-restricted-imports": [
      "error",
      { patterns: forbidden.map((group) => ({ group: [group], message: "That floor is out of reach from here." })) },
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

export default tseslint.config(
  { ignores: ["**/dist/**", "**/.types/**", "**/node_modules/**", "**/test-results/**", "**/playwright-report/**"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    rules: {
      "@typescript-eslint/no-non-null-assertion": "off",
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_+$" }],
      eqeqeq: "error",
      "no-undef": "off",
    },
  },
  floor(["core/src/**/*.ts"], ["@ash-edge/*", "**/web/**", "**/server/**", "**/cli/**", ...outside], browser),
  floor(["cli/**/*.ts"], ["@ash-edge/web*", "@ash-edge/server*", "**/web/**", "**/server/**", "react*"]),
  floor(["server/**/*.ts"], ["@ash-edge/web*", "@ash-edge/cli*", "**/web/src/**", "**/cli/**", "react*"]),
  floor(["web/**/*.{ts,tsx}"], ["@ash-edge/server*", "@ash-edge/cli*", "**/server/**", "**/cli/**", "node:*"]),
  { files: ["web/**/*.{ts,tsx}"], ...hooks.configs.flat["recommended-latest"] },
);
