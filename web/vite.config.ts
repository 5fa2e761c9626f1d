import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

export default defineConfig({
  plugins: [
    react(),
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
  build: { target: "es2022", modulePreload: { polyfill: false } },
  server: { proxy: { "/api": "http://127.0.0.1:8600" } },
});
