import { readFileSync } from "node:fs";
import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

// The program's version stands once, for both sides.
const version = /^version = "(.+)"/m.exec(readFileSync("../pyproject.toml", "utf8"))?.[1] ?? "";

// What plans in the browser without a network (ops/browser_core.py): where it is served, and how large it is.
const core = readFileSync("core.json", "utf8");

export default defineConfig({
  define: { __VERSION__: JSON.stringify(version), __CORE__: core },
  plugins: [
    react(),
    tailwindcss(),
    {
      name: "license of the font",
      // It comes by a style sheet, and is not in the list that the build makes of what it put together.
      generateBundle() {
        const source = readFileSync("node_modules/@fontsource-variable/inter/LICENSE");
        this.emitFile({ type: "asset", fileName: "license-of-the-font.txt", source });
      },
    },
    VitePWA({
      registerType: "prompt",
      injectRegister: null,
      includeAssets: ["icon.svg", "icon-192.png"],
      manifest: {
        name: "Crelda",
        short_name: "Crelda",
        description: "Conduit that fits the first time",
        start_url: "/",
        display: "standalone",
        background_color: "#e7eaed",
        theme_color: "#5b2153",
        // A field note that is shared to the program opens as a new run.
        share_target: { action: "/shared", method: "GET", params: { title: "title", text: "text" } },
        icons: [
          { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
          { src: "/icon.svg", sizes: "any", type: "image/svg+xml" },
        ],
      },
      workbox: {
        // The bench and a layout must open in a basement; the turned picture need not.
        globPatterns: ["index.html", "assets/*.{js,css}", "assets/inter-latin-wght*.woff2", "*.svg"],
        globIgnores: ["assets/webgl-*.js", "assets/three.core-*.js", "assets/save-model-*.js"],
        // What plans without a network is put there by the page, whole, when somebody asks for it.
        runtimeCaching: [
          {
            urlPattern: /\/core\/[0-9a-f]{16}\//,
            handler: "CacheFirst",
            options: { cacheName: "crelda-core" },
          },
        ],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/(api\/|core\/|healthz|readyz|metrics|license)/],
      },
    }),
  ],
  resolve: { tsconfigPaths: true },
  // What is shipped, with its licenses: served beside it.
  build: { sourcemap: false, modulePreload: { polyfill: false }, license: { fileName: "licenses.txt" } },
  test: { setupFiles: ["src/test/patience.ts"], testTimeout: 60_000 },
  // For work on the front end: npx vite, beside a running server.
  server: { proxy: { "/api": "http://127.0.0.1:8417" } },
});
