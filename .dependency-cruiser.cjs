/** Imports run only downwards: a stage of the core knows the stages before it, never the ones after. */
const STAGES = [
  "errors",
  "geometry",
  "trace",
  "measure",
  "piece",
  "ornaments",
  "lettering",
  "holders",
  "weld",
  "joints",
  "judge",
  "examine",
  "report",
  "cut",
  "mend",
  "strength",
  "nest",
  "runs",
  "shelf",
  "formats",
  "machine",
  "drawings",
  "examiner",
  "wording",
];

/** Which stages each stage may use (itself always). */
const MAY_USE = {
  errors: [],
  geometry: [],
  trace: ["geometry"],
  piece: ["geometry"],
  measure: ["geometry"],
  ornaments: ["geometry", "piece"],
  lettering: ["geometry", "measure", "piece", "ornaments"],
  holders: ["geometry", "measure", "piece", "ornaments"],
  weld: ["geometry"],
  joints: ["geometry", "measure"],
  judge: ["geometry", "piece", "joints"],
  examine: ["geometry", "piece", "lettering", "holders", "weld", "measure", "joints", "judge"],
  report: ["geometry", "piece", "judge", "examine"],
  cut: ["geometry", "measure", "piece", "judge", "report"],
  mend: ["geometry", "measure", "piece", "holders", "judge", "examine"],
  strength: ["geometry", "measure", "piece", "judge", "examine"],
  nest: ["geometry"],
  runs: ["geometry", "piece", "judge", "examine", "report", "mend", "nest"],
  shelf: ["geometry", "measure", "piece", "lettering", "examine", "report"],
  machine: ["geometry", "piece", "cut", "formats"],
  formats: ["geometry", "piece", "report", "cut"],
  drawings: ["geometry", "piece", "judge", "examine", "cut", "formats", "machine"],
  examiner: ["geometry", "piece", "holders", "judge", "examine", "report", "cut", "mend", "strength", "shelf", "formats"],
  wording: ["geometry", "piece", "judge", "examine", "report", "cut", "mend", "strength", "drawings"],
};

const stageRules = STAGES.map((stage) => ({
  name: `core-${stage}-downwards`,
  severity: "error",
  from: { path: `^core/${stage}/`, pathNot: "\\.test\\.ts$" },
  to: {
    path: "^core/",
    pathNot: `^core/(${[stage, "errors", ...MAY_USE[stage]].join("|")})/`,
  },
}));

module.exports = {
  forbidden: [
    ...stageRules,
    {
      name: "core-is-pure",
      comment: "no DOM, no Node, no other room of the house",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$|^core/tests/" },
      to: { path: "^(server|web|cli|library|demo|e2e|benchmarks)/" },
    },
    {
      name: "core-without-node",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$|^core/tests/" },
      to: { dependencyTypes: ["core"] },
    },
    {
      name: "web-and-server-apart",
      severity: "error",
      from: { path: "^web/" },
      to: { path: "^(server|cli|e2e|benchmarks)/" },
    },
    {
      name: "server-without-web",
      severity: "error",
      from: { path: "^(server|cli|library)/" },
      to: { path: "^(web|e2e|benchmarks)/" },
    },
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "(^|/)(dist|node_modules)/" },
    tsConfig: { fileName: "tsconfig.json" },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ["exports"], conditionNames: ["import", "types", "default"] },
  },
};
