import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig, type HtmlTagDescriptor, type Plugin } from "vite";
import { compression } from "vite-plugin-compression2";

/** Every screen stands on these; else the browser would learn of them only from one another. */
const WANTED_FIRST = /^assets\/((react|shared|app|rolldown-runtime)-.*\.js|app-.*\.css|.*-latin-wght-normal-.*\.woff2)$/;

const tagFor = (href: string): HtmlTagDescriptor => {
  const kind = href.endsWith(".css") ? { as: "style" } : { as: "font", type: "font/woff2" };
  const attrs = href.endsWith(".js") ? { rel: "modulepreload" } : { rel: "preload", ...kind };
  return { tag: "link", attrs: { ...attrs, crossorigin: true, href }, injectTo: "head" };
};

const wantedFirst: Plugin = {
  name: "wanted-first",
  transformIndexHtml: {
    order: "post",
    handler: (_, { bundle = {} }) =>
      Object.keys(bundle)
        .filter((file) => WANTED_FIRST.test(file))
        .map((file) => tagFor(`/${file}`)),
  },
};

/** The rooms of the core that examining goes through, with the libraries they stand on. */
const ENGINE =
  /core\/(errors|examine|geometry|holders|joints|judge|lettering|measure|mend|ornaments|piece|report|shelf|strength|weld)\/|node_modules\/(clipper2-wasm|d3-polygon|delaunator|diff|flatbush|flatqueue|harfbuzzjs|quick-lru|robust-predicates|svgpath|zod)\//;

/** Files that import each other would wait for each other: what is compiled is ready only after a moment (top-level await). */
const noCircles: Plugin = {
  name: "no-circles",
  generateBundle(_, bundle) {
    const importsOf = (file: string) => {
      const each = bundle[file];
      return each?.type === "chunk" ? each.imports : [];
    };
    const reaches = (from: string, to: string, seen = new Set<string>()): boolean =>
      importsOf(from).some((next) => next === to || (!seen.has(next) && reaches(next, to, seen.add(next))));
    const circles = Object.keys(bundle).filter((file) => reaches(file, file));
    if (circles.length > 0) this.error(`These files import each other: ${circles.join(", ")}`);
  },
};

export default defineConfig({
  root: import.meta.dirname,
  // The server hands out what is compressed here.
  plugins: [
    react(),
    tailwindcss(),
    wantedFirst,
    noCircles,
    compression({ algorithms: ["gzip"], include: /\.(html|css|js|svg|wasm)$/ }),
  ],
  // HarfBuzz finds its WebAssembly beside its own module, so it must stay a module of its own.
  optimizeDeps: { exclude: ["harfbuzzjs"] },
  worker: {
    format: "es",
    plugins: () => [noCircles],
    // The engine is one file: its modules would be asked for one after the other, each by the one before.
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: "engine", test: ENGINE, includeDependenciesRecursively: false }] } },
    },
  },
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
