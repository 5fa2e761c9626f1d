import { playwright } from "@vitest/browser-playwright";
import { defineConfig, mergeConfig } from "vitest/config";
import app from "./vite.config";

export default mergeConfig(
  app,
  defineConfig({
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
  }),
);
