/** The layers: arrows point down only (docs/architecture.md has the drawing). */
const layer = (name, from, allowed) => ({
  name,
  severity: "error",
  from: { path: from, pathNot: "\\.test\\.tsx?$" },
  to: { path: "^(src|devices|e2e|scripts)/", pathNot: [...allowed, from] },
});

module.exports = {
  forbidden: [
    {
      name: "no-cycles",
      severity: "error",
      from: {},
      to: { circular: true },
    },
    layer("core-imports-nothing-above", "^src/core/", []),
    layer("contracts-import-core", "^src/contracts/", ["^src/core/"]),
    layer("server-imports-contracts", "^src/server/", ["^src/contracts/", "^src/core/"]),
    layer("workers-import-contracts", "^src/workers/", ["^src/contracts/", "^src/core/"]),
    layer("clients-import-contracts", "^src/clients/", ["^src/contracts/", "^src/core/", "^src/workers/"]),
    layer("ui-imports-clients", "^src/ui/", ["^src/clients/", "^src/contracts/", "^src/core/"]),
    layer("app-is-on-top", "^src/app/", ["^src/(ui|clients|contracts|server|core)/"]),
    layer("demo-imports-server", "^src/demo/", ["^src/(server|contracts|core)/"]),
    {
      name: "core-is-pure",
      severity: "error",
      from: { path: "^src/core/", pathNot: "\\.test\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "core-knows-no-interface",
      severity: "error",
      from: { path: "^src/core/" },
      // The compiler adds the runtime of JSX to what it reads; no file of the core holds markup.
      to: { path: "node_modules/(react|react-dom|next|knex|better-sqlite3|radix-ui)/", pathNot: "jsx-runtime" },
    },
    {
      name: "ui-draws-from-plots",
      comment: "The interface never runs kernels or formats itself; it draws what core/plots gives.",
      severity: "error",
      from: { path: "^src/ui/" },
      to: { path: "^src/core/(dsp|sound|formats)/" },
    },
    {
      name: "worklet-carries-no-zod",
      severity: "error",
      from: { path: "^src/workers/audition.worklet.ts$" },
      to: { path: "node_modules/zod/", reachable: true },
    },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "node", "default"] },
  },
};
