// Imports run one way (docs/architecture.md). dependency-cruiser fails the test command on a breach.
/** The rooms of the core, from the ground up: what stands on one line may use what stands above it, and nothing else. */
const FLOORS = [
  ["similar", "words", "three-way"],
  ["model"],
  ["raster", "playback", "clip", "facing", "series", "references", "undo", "notation"],
  ["palette", "assemble", "outline", "parts"],
  ["tiles"],
  ["art", "codec", "cut", "pack", "lettering", "behave"],
  ["marks", "metadata", "frame-identity", "atlas", "bundle", "rehearse", "receipt"],
  ["delivery-plan", "example", "stage"],
  ["edit"],
  ["check", "intake"],
  ["deliver", "merge"],
];
const core = (names) => `^packages/core/src/(${names.join("|")})/`;

const floors = FLOORS.flatMap((rooms, k) =>
  rooms.map((room) => ({
    name: `${room}-stands-on-what-is-above-it`,
    severity: "error",
    from: { path: core([room]), pathNot: "\\.(test|fixture)\\.ts$" },
    to: { path: "^packages/core/src/", pathNot: core([...FLOORS.slice(0, k).flat(), room]) },
  })),
);

module.exports = {
  forbidden: [
    ...floors,
    {
      name: "every-room-has-its-floor",
      severity: "error",
      from: { path: "^packages/core/src/", pathNot: core(FLOORS.flat()) },
      to: {},
    },
    { name: "no-loops", severity: "error", from: {}, to: { circular: true } },
    {
      // Bundled into it when it is built: what a game ships stays small.
      name: "player-imports-only-what-brings-nothing",
      severity: "error",
      from: { path: "^packages/player/src", pathNot: "\\.test\\.ts$" },
      to: { pathNot: "^packages/(player/src|core/src/(playback|behave|parts|similar))/" },
    },
    {
      // What is handed round plays by what games play with.
      name: "handout-imports-only-the-player",
      severity: "error",
      from: { path: "^packages/handout/src", pathNot: "\\.test\\.ts$" },
      to: { pathNot: "^packages/(handout|player)/src/" },
    },
    {
      name: "core-knows-no-other-package",
      severity: "error",
      from: { path: "^packages/core", pathNot: "\\.(test|fixture)\\.ts$" },
      to: { path: "^(packages/(cli|player)|apps)/" },
    },
    {
      name: "core-knows-no-node",
      severity: "error",
      from: { path: "^packages/core", pathNot: "\\.(test|fixture)\\.ts$" },
      to: { dependencyTypes: ["core"] },
    },
    {
      // A game ships it, so it may bring nothing along: of the model only types.
      name: "what-the-player-ships-brings-nothing-along",
      severity: "error",
      from: { path: core(["playback", "behave", "parts", "similar"]), pathNot: "\\.test\\.ts$" },
      to: { pathNot: core(["playback", "behave", "parts", "similar"]), dependencyTypesNot: ["type-only"] },
    },
    {
      name: "reach-a-folder-by-its-index",
      severity: "error",
      from: { path: "^packages/core/src/([^/]+)/", pathNot: "\\.test\\.ts$" },
      to: { path: "^packages/core/src/([^/]+)/(?!index\\.ts$)", pathNot: "^packages/core/src/$1/" },
    },
    {
      name: "nobody-imports-the-surfaces",
      severity: "error",
      from: { path: "^packages/(core|player)" },
      to: { path: "^(packages/cli|apps)/" },
    },
    { name: "cli-and-studio-are-apart", severity: "error", from: { path: "^packages/cli" }, to: { path: "^apps/" } },
    { name: "studio-and-cli-are-apart", severity: "error", from: { path: "^apps/" }, to: { path: "^packages/cli" } },
    {
      name: "stops-are-apart",
      severity: "error",
      from: { path: "^apps/studio/src/stops/([^/]+)/" },
      to: { path: "^apps/studio/src/stops/([^/]+)/", pathNot: "^apps/studio/src/stops/$1/" },
    },
    {
      name: "ui-knows-no-stop",
      severity: "error",
      from: { path: "^apps/studio/src/(ui|preview|project|workers)/" },
      to: { path: "^apps/studio/src/stops/" },
    },
    { name: "no-orphans", severity: "error", from: { orphan: true, path: "^packages/(core|cli|player)/src" }, to: {} },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "(^|/)(dist|\\.next|node_modules)/" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "node", "default"],
      extensions: [".ts", ".tsx", ".mjs", ".js"],
    },
  },
};
