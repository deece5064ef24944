import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  base: "./",
  plugins: [react()],
  resolve: { conditions: ["@indigo-quill/source", "module", "browser", "development|production"] },
});
