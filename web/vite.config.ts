import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { compression } from "vite-plugin-compression2";

export default defineConfig({
  root: import.meta.dirname,
  // The server hands out what is compressed here.
  plugins: [react(), tailwindcss(), compression({ algorithms: ["gzip"], include: /\.(html|css|js|svg|wasm)$/ })],
  // HarfBuzz finds its WebAssembly beside its own module, so it must stay a module of its own.
  optimizeDeps: { exclude: ["harfbuzzjs"] },
  worker: { format: "es" },
  build: {
    target: "es2023",
    chunkSizeWarningLimit: 1200,
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: "early", test: /web\/early|preload-helper/, priority: 2 },
            { name: "react", priority: 1, test: /node_modules\/(react|react-dom|react-router|scheduler|sonner)\// },
            // What several screens use is one file: fifty small ones take longer than the work in them.
            { name: "shared", test: (path) => !/echarts|zrender|useChart/.test(path), minShareCount: 2 },
          ],
        },
      },
    },
  },
  server: {
    port: 5181,
    strictPort: true,
    // Host and Origin stay as the page sends them, so that the server tells foreign pages as it does without the proxy.
    proxy: { "/api": { target: "http://127.0.0.1:5180", changeOrigin: false } },
  },
});
