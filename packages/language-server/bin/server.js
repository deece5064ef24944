#!/usr/bin/env node
import { serve } from "../dist/serve.js";
serve(process.stdin, process.stdout);
// An editor that has gone asks nothing more.
process.stdin.on("end", () => process.exit());
