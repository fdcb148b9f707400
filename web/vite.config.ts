import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  test: { setupFiles: ["src/test/setup.ts"] },
  // Every browser that Rovnik is for preloads modules by itself.
  build: { chunkSizeWarningLimit: 1200, target: "es2022", modulePreload: { polyfill: false } },
  server: { proxy: { "/api": { target: "http://127.0.0.1:8080", ws: true } } },
});
