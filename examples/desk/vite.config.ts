import react from "@vitejs/plugin-react";
import { type Plugin, defineConfig } from "vite";

/** What the built page may load: files of its own, and nothing that stands in a page or an address. */
const policy = [
  "default-src 'none'",
  "script-src 'self'",
  "worker-src 'self'",
  "style-src 'self'",
  "img-src 'self'",
  "connect-src 'self'",
  "base-uri 'none'",
  "form-action 'none'",
].join("; ");

// Only the built page: while it is developed, Vite puts scripts of its own into it.
const contentSecurityPolicy: Plugin = {
  name: "content-security-policy",
  apply: "build",
  transformIndexHtml: () => [
    { tag: "meta", attrs: { "http-equiv": "Content-Security-Policy", content: policy }, injectTo: "head-prepend" },
  ],
};

export default defineConfig({
  base: "./",
  plugins: [react(), contentSecurityPolicy],
  worker: { format: "es" },
  resolve: { conditions: ["@indigo-quill/source", "module", "browser", "development|production"] },
});
