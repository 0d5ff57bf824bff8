import js from "@eslint/js";
import jsxA11y from "eslint-plugin-jsx-a11y";
import importX from "eslint-plugin-import-x";
import reactHooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

// Layers, lowest first: a folder uses only those before it. Stages do not use one another.
const LAYERS = [["api"], ["quantity"], ["kit"], ["charts", "section"], ["shared"], ["stages", "rooms", "today", "shop", "practice"], ["app"]];
const STAGES = ["tank", "stock", "filter", "fit", "cycle", "keep"];
const zones = [
  ...LAYERS.flatMap((folders, i) =>
    folders.map((folder) => ({
      target: `./src/${folder}`,
      from: [...folders.filter((f) => f !== folder), ...LAYERS.slice(i + 1).flat()].map((f) => `./src/${f}`),
    })),
  ),
  ...STAGES.map((stage) => ({
    target: `./src/stages/${stage}`,
    from: STAGES.filter((s) => s !== stage).map((s) => `./src/stages/${s}`),
  })),
].filter(({ from }) => from.length > 0);

export default tseslint.config(
  { ignores: ["src/api/types.ts", "dist"] },
  js.configs.recommended,
  ...tseslint.configs.strictTypeChecked,
  jsxA11y.flatConfigs.strict,
  {
    files: ["{src,unit}/**/*.{ts,tsx}"],
    plugins: { "react-hooks": reactHooks, "import-x": importX },
    settings: { "import-x/resolver": { typescript: { project: "./tsconfig.json" } } },
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      complexity: ["error", 12],
      "max-lines-per-function": ["error", { max: 80 }],
      "max-lines": ["error", { max: 350 }],
      "import-x/no-cycle": "error",
      "import-x/no-restricted-paths": ["error", { zones }],
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "error",
      // Figures are written into sentences everywhere; numbers in templates are what a number is for.
      "@typescript-eslint/restrict-template-expressions": ["error", { allowNumber: true }],
      // A handler that starts work and lets its own error note report on it is the usual React shape.
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: false }],
    },
  },
);
