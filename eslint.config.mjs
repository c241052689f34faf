import next from "eslint-config-next";
import tseslint from "typescript-eslint";

const limits = {
  complexity: ["error", 12],
  "max-params": ["error", 4],
  "max-lines-per-function": ["error", { max: 60, skipBlankLines: true, skipComments: true }],
};

/** The core has neither clock, chance, page nor process: what it needs of them is handed to it. */
const pure = {
  "no-restricted-globals": [
    "error",
    ...[
      "window",
      "document",
      "navigator",
      "process",
      "crypto",
      "localStorage",
      "fetch",
      "setTimeout",
      "performance",
    ].map((name) => ({ name, message: "The core is pure: take it as an argument." })),
  ],
  "no-restricted-properties": [
    "error",
    { object: "Math", property: "random", message: "Take randomness as an argument." },
    { object: "Date", property: "now", message: "Take the clock as an argument." },
  ],
};

export default tseslint.config(
  {
    ignores: [
      "node_modules/**",
      ".next/**",
      ".build/**",
      "**/*.cjs",
      "postcss.config.mjs",
      ".data/**",
      "public/**",
      "next-env.d.ts",
      "test-results/**",
    ],
  },
  // Rules of React and of pages are of no use where there are neither, and a fifth of all the time.
  ...next.map((config) => ({ ...config, files: ["src/{app,ui}/**/*.{ts,tsx}"] })),
  ...tseslint.configs.recommendedTypeChecked,
  {
    languageOptions: {
      parserOptions: {
        projectService: { allowDefaultProject: ["*.mjs", "scripts/*.mjs", "src/workers/audition.worklet.ts"] },
        tsconfigRootDir: import.meta.dirname,
      },
    },
    rules: {
      ...limits,
      "@typescript-eslint/no-explicit-any": "error",
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/switch-exhaustiveness-check": [
        "error",
        { considerDefaultExhaustiveForUnions: true, requireDefaultForNonUnion: false },
      ],
      "@typescript-eslint/consistent-type-imports": "error",
      "@typescript-eslint/no-unused-vars": [
        "error",
        { varsIgnorePattern: "^_", argsIgnorePattern: "^_", ignoreRestSiblings: true },
      ],
      "no-restricted-syntax": [
        "error",
        { selector: "ExportDefaultDeclaration", message: "Name what you export." },
        {
          selector: "ConditionalExpression > Literal[value='s']",
          message: "Plurals are made by counted() of core/names/count.ts.",
        },
      ],
    },
  },
  { files: ["src/core/**/*.ts"], ignores: ["**/*.test.ts"], rules: pure },
  {
    files: ["**/*.tsx"],
    // Markup is long without being complicated, and each "?." of it counts as a branch.
    rules: { "max-lines-per-function": "off", complexity: ["error", 20] },
  },
  {
    // What is run in the page is one function, which can call nothing of ours.
    files: ["e2e/cut.ts", "e2e/clumsy-hand.ts"],
    rules: { complexity: "off", "max-lines-per-function": "off" },
  },
  {
    // What Knex hands out is given its type here and nowhere else.
    files: ["src/server/repositories/**"],
    rules: { "@typescript-eslint/no-unnecessary-type-assertion": "off" },
  },
  {
    files: ["**/*.test.ts", "**/*.test.tsx", "e2e/**/*.ts"],
    rules: { "max-lines-per-function": "off", "@typescript-eslint/no-non-null-assertion": "off" },
  },
  {
    files: ["src/app/**", "*.config.*", "e2e/**/*.config.ts"],
    rules: { "no-restricted-syntax": "off" },
  },
  { files: ["**/*.mjs", "src/workers/audition.worklet.ts"], ...tseslint.configs.disableTypeChecked },
  { files: ["**/*.mjs"], rules: { "no-restricted-syntax": "off", ...tseslint.configs.disableTypeChecked.rules } },
);
