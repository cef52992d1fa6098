/** Who may need whom in the web client; types count as much as code. */
module.exports = {
  forbidden: [
    {
      name: "no-circles",
      severity: "error",
      comment: "What two parts need of each other belongs in a third.",
      from: {},
      to: { circular: true },
    },
    {
      name: "a-stage-by-its-index",
      severity: "error",
      comment: "A stage is entered through its index only.",
      from: { pathNot: "^src/stages/" },
      to: { path: "^src/stages/[a-z]+/(?!index)" },
    },
    {
      name: "stages-apart",
      severity: "error",
      comment: "Stages share parts, data and look; not each other's rooms.",
      from: { path: "^src/stages/([a-z]+)/" },
      to: { path: "^src/stages/", pathNot: "^src/stages/$1/" },
    },
    {
      name: "parts-below",
      severity: "error",
      comment: "Shared pieces and data know no stage and no shell.",
      from: { path: "^src/(parts|data|look)/" },
      to: { path: "^src/(stages|app)/" },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    doNotFollow: { path: "node_modules" },
  },
};
