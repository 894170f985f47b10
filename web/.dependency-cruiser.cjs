/** app → features → drawing, shared, api; features never import each other. */
module.exports = {
  forbidden: [
    { name: "no-circular", severity: "error", from: {}, to: { circular: true } },
    {
      name: "features-apart",
      severity: "error",
      from: { path: "^src/features/([^/]+)/" },
      to: { path: "^src/features/", pathNot: "^src/features/$1/" },
    },
    {
      name: "drawing-knows-no-feature",
      severity: "error",
      from: { path: "^src/drawing/" },
      to: { path: "^src/(features|app)/" },
    },
    {
      name: "shared-is-the-ground",
      severity: "error",
      from: { path: "^src/shared/" },
      to: { path: "^src/(features|drawing|app)/" },
    },
    { name: "api-is-the-ground", severity: "error", from: { path: "^src/api/" }, to: { path: "^src/(features|drawing|shared|app)/" } },
    { name: "features-below-app", severity: "error", from: { path: "^src/features/" }, to: { path: "^src/app/" } },
  ],
  options: { tsPreCompilationDeps: true, tsConfig: { fileName: "tsconfig.json" }, doNotFollow: { path: "node_modules" } },
};
