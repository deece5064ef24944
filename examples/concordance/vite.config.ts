import { type Plugin, defineConfig } from "vite";
import { questionsHtml } from "./src/render.ts";

/** What the built page may load: files of its own, and nothing that stands in a page or an address. */
const policy =
  "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; base-uri 'none'; form-action 'none'";

/** The questions stand in the page itself, so that it can be read without its script. */
const questions: Plugin = {
  name: "questions",
  transformIndexHtml: { order: "pre", handler: (html) => html.replace("<!-- questions -->", questionsHtml) },
};

const contentSecurityPolicy: Plugin = {
  name: "content-security-policy",
  apply: "build",
  transformIndexHtml: () => [
    { tag: "meta", attrs: { "http-equiv": "Content-Security-Policy", content: policy }, injectTo: "head-prepend" },
  ],
};

export default defineConfig({ base: "./", plugins: [questions, contentSecurityPolicy] });
