// Figures for paper as one script that runs by itself, with no page around it.
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  publicDir: false,
  define: { "process.env.NODE_ENV": JSON.stringify("production") },
  build: {
    target: "es2022",
    outDir: "dist-paper",
    lib: {
      entry: "src/paper/paper.tsx",
      formats: ["iife"],
      name: "paper",
      fileName: () => "paper.js",
    },
  },
});
