import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

const server = `http://127.0.0.1:${process.env.MILKWORT_PORT ?? "8710"}`;

export default defineConfig({
  plugins: [react()],
  build: { outDir: "../milkwort/static", emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: {
    port: 8709,
    // the server takes changes from its own pages only; in development those come through here
    proxy: { "/api": { target: server, changeOrigin: true, headers: { Origin: server } } },
  },
  test: {
    environment: "jsdom",
    globals: true,
    setupFiles: ["src/testing.ts"],
    // how long a busy machine may take says nothing of the program
    testTimeout: 30_000,
  },
});
