import { transformAsync } from "@babel/core";
import react from "@vitejs/plugin-react";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

// a day taken for a moment is the day before west of Greenwich: tests stand there, so that they see it
process.env.TZ = process.env.VITEST ? "America/St_Johns" : process.env.TZ;

const server = `http://127.0.0.1:${process.env.MILKWORT_PORT ?? "8710"}`;

/** React Compiler over our own parts, so that an answer draws anew only what it changed. */
const compiled: Plugin = {
  name: "milkwort-compiled",
  enforce: "pre",
  apply: "build",
  transform: {
    filter: { id: /\/src\/.*\.tsx?$/ },
    handler: (code, filename) =>
      transformAsync(code, {
        filename,
        plugins: ["babel-plugin-react-compiler"],
        parserOpts: { plugins: ["typescript", "jsx"] },
        sourceMaps: false,
        configFile: false,
        babelrc: false,
      }) as Promise<{ code: string }>,
  },
};

export default defineConfig({
  plugins: [compiled, react()],
  build: {
    outDir: "../milkwort/static",
    emptyOutDir: true,
    chunkSizeWarningLimit: 700,
    // compiling our parts takes the time it takes; a page about it helps nobody who starts the demo
    rolldownOptions: { checks: { bundlerTimings: false } },
  },
  server: {
    port: 8709,
    // the server takes changes from its own pages only; in development those come through here
    proxy: { "/api": { target: server, changeOrigin: true, headers: { Origin: server } } },
  },
  test: {
    environment: "jsdom",
    globals: true,
    setupFiles: ["src/testing.ts"],
    // a rule at a time, as in the program: jsdom would read all rules anew with each one more
    env: { SC_DISABLE_SPEEDY: "false" },
    // files of a worker share its modules; what a test put in place of a global goes with it
    isolate: false,
    maxWorkers: 2,
    unstubGlobals: true,
    restoreMocks: true,
    reporters: ["dot"],
    // how long a busy machine may take says nothing of the program
    testTimeout: 30_000,
  },
});
