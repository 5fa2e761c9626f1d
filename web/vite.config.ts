import react from "@vitejs/plugin-react";
import { playwright } from "@vitest/browser-playwright";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

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
  test: {
    projects: [
      { extends: true, test: { name: "state", include: ["src/**/*.test.ts"] } },
      {
        extends: true,
        // Looked for beforehand: found one by one, the page would load anew in the middle of a test.
        optimizeDeps: {
          entries: ["src/main.tsx", "src/**/*.test.tsx"],
          include: ["react", "react-dom/client", "react/jsx-dev-runtime", "vitest-browser-react"],
        },
        test: {
          name: "components",
          include: ["src/**/*.test.tsx"],
          setupFiles: ["src/testing/setup.ts"],
          browser: {
            enabled: true,
            headless: true,
            screenshotFailures: false,
            provider: playwright({ launchOptions: { executablePath: "/usr/bin/chromium" } }),
            instances: [{ browser: "chromium", viewport: { width: 1280, height: 800 } }],
          },
        },
      },
    ],
  },
  server: { proxy: { "/api": "http://127.0.0.1:8600" } },
});
