import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  resolve: { tsconfigPaths: true },
  build: { sourcemap: false, modulePreload: { polyfill: false } },
  // For work on the front end: npx vite, beside a running server.
  server: { proxy: { "/api": "http://127.0.0.1:8417" } },
});
