import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

/** The modules under test on a page of their own; `--outDir` says where. */
export default defineConfig({
  root: new URL(".", import.meta.url).pathname,
  plugins: [react()],
  build: { target: "es2022", minify: false, emptyOutDir: true },
});
