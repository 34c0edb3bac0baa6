import { availableParallelism } from "node:os";
import { defineConfig } from "vitest/config";

/** Against hangs only: in a slow hour of a busy machine the longest take half a minute. */
const common = { testTimeout: 180_000, hookTimeout: 180_000, setupFiles: ["scripts/test-setup.ts"] };

/**
 * Tests of the core, the player and the command line share what a worker has loaded: they are pure, and loading the core anew for each
 * file took longer than the tests. Those of the studio stand in for browsers and their storage, so each file has a world of its own.
 */
export default defineConfig({
  test: {
    globalSetup: ["scripts/test-command.mjs"],
    // By itself Vitest leaves one core to others, which is half of a small machine. Many tests wait for commands that they start.
    maxWorkers: availableParallelism() + 1,
    projects: [
      {
        test: { ...common, name: "core", include: ["packages/**/*.test.ts", "examples/**/*.test.ts"], isolate: false },
      },
      { test: { ...common, name: "studio", include: ["apps/**/*.test.{ts,tsx}"] } },
    ],
  },
});
