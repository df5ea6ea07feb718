// What the pages' own scripts are checked for: mistakes, no matters of taste.
import js from "@eslint/js";
import globals from "globals";

export default [
  { ignores: ["var/", "web/static/vendor/"] },
  js.configs.recommended,
  {
    languageOptions: { globals: { ...globals.browser, Coloris: "readonly", Idiomorph: "readonly", htmx: "readonly" } },
    rules: { eqeqeq: "error", "max-len": ["error", 120], "prefer-const": "error" },
  },
];
