import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";

/** Its own script, run before the app's is even read: what it asks for is on its way meanwhile. */
const earlyFirst: Plugin = {
  name: "early-first",
  transformIndexHtml: {
    order: "post",
    handler(_page, { bundle }) {
      const early = Object.values(bundle ?? {}).find(
        (made) => made.type === "chunk" && made.facadeModuleId?.endsWith("/src/early.ts"),
      );
      if (!early) return [];
      const attrs = { type: "module", async: true, crossorigin: true, src: `/${early.fileName}` };
      return [{ tag: "script", attrs, injectTo: "head-prepend" }];
    },
  },
};

export default defineConfig({
  plugins: [
    react(),
    earlyFirst,
    // The page itself opens with the server stopped, so that what waits on this device can be seen
    // and sent later. Answers of the API are health data and are never cached.
    VitePWA({
      registerType: "autoUpdate",
      injectRegister: "script-defer",
      manifest: {
        name: "North Stride",
        short_name: "North Stride",
        display: "standalone",
        theme_color: "#1d4b43",
        background_color: "#faf7f0",
        icons: [{ src: "/mark.svg", sizes: "any", type: "image/svg+xml" }],
      },
      workbox: {
        globPatterns: ["**/*.{html,js,css,svg,woff2}"],
        navigateFallback: "/index.html",
        navigateFallbackDenylist: [/^\/api\//],
        runtimeCaching: [],
      },
    }),
  ],
  css: {
    preprocessorOptions: {
      // Bootstrap's own sources are still written for the older module rules.
      scss: { quietDeps: true, silenceDeprecations: ["import", "if-function"] },
    },
  },
  build: {
    target: "es2022",
    // The server names what a place is made of in its page.
    manifest: true,
    modulePreload: { polyfill: false },
    rolldownOptions: {
      input: { index: "index.html", early: "src/early.ts" },
      // What places share comes in one piece, and not in twenty of a kilobyte.
      output: {
        codeSplitting: {
          groups: [
            // Runs first, before what draws is even read.
            { name: "early", test: /src.(early|api|state.device)/, priority: 2 },
            {
              name: "shared",
              // Dialogs and forms come when they are opened.
              test: /src.(state|figures|components.(base|marks|screen|layout.(Away|Shell|Menu|Places|UrgentB|ScreenH|PlaceP)))/,
              minShareCount: 3,
              priority: 1,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8600" } },
});
