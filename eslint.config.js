// What the pages' own scripts are checked for: mistakes, no matters of taste.
import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["var/", "web/static/vendor/"] },
  js.configs.recommended,
  {
    // What computes knows nothing of the page's elements, nor of what is selected on it.
    files: ["web/static/js/workbench/figures/*.js"],
    rules: {
      "no-restricted-globals": ["error", "document", "window", "location", "localStorage", "sessionStorage"],
      "no-restricted-imports": ["error", { patterns: ["**/state.js", "**/edits/*", "**/elements.js"] }],
    },
  },
  {
    languageOptions: { globals: { ...globals.browser, Coloris: "readonly", Idiomorph: "readonly", htmx: "readonly" } },
    rules: { eqeqeq: "error", "max-len": ["error", 120], "prefer-const": "error" },
  },
];
