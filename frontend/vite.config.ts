import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";

/** What the component library says to screen readers, in English as the rest of the page is, and not in 33 languages besides. */
const IN_ENGLISH: Plugin = {
  name: "reedmace-in-english",
  load: (id) =>
    /\/intl(\/\w+)?\/[a-z]{2}-[A-Z]{2}\.mjs$/.test(id) && !id.endsWith("/en-US.mjs")
      ? 'export { default } from "./en-US.mjs";'
      : null,
};

export default defineConfig({
  plugins: [
    IN_ENGLISH,
    react(),
    // The shell is kept on the device, so that the page opens at the tank without a connection; its data is kept by the page.
    VitePWA({
      registerType: "prompt",
      includeAssets: ["mark.svg", "icon-192.png", "icon-512.png"],
      workbox: {
        globPatterns: ["**/*.{js,css,html,woff2,svg,png}"],
        navigateFallbackDenylist: [/^\/api\//],
        inlineWorkboxRuntime: true,
        cleanupOutdatedCaches: true,
      },
      manifest: {
        name: "Reedmace",
        short_name: "Reedmace",
        description: "Choose, fit and cycle an aquarium filter, and keep its logbook.",
        start_url: "/today",
        display: "standalone",
        background_color: "#f3f4ef",
        theme_color: "#f3f4ef",
        icons: [
          { src: "/icon-192.png", sizes: "192x192", type: "image/png", purpose: "any maskable" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "any maskable" },
          { src: "/mark.svg", sizes: "any", type: "image/svg+xml" },
        ],
      },
    }),
  ],
  // The list of what each page is made of lets the server send a browser for all of it at once.
  build: { target: "es2022", sourcemap: false, assetsInlineLimit: 0, manifest: "made-of.json" },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
});
