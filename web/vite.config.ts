import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

const server = `http://127.0.0.1:${process.env.MILKWORT_PORT ?? "8710"}`;

export default defineConfig({
  plugins: [react()],
  build: { outDir: "../milkwort/static", emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { port: 8709, proxy: { "/api": { target: server, changeOrigin: true } } },
  test: { environment: "jsdom", globals: true, setupFiles: ["src/testing.ts"] },
});
