import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

export default defineConfig({
  plugins: [
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
  build: { target: "es2022", sourcemap: false, assetsInlineLimit: 0 },
  server: { proxy: { "/api": "http://127.0.0.1:8420" } },
});
