/** Tests read the sources; the command, the desk and the bench are tested as built. */
export default {
  testMatch: ["<rootDir>/packages/*/test/**/*.test.ts", "<rootDir>/test/**/*.test.ts"],
  extensionsToTreatAsEsm: [".ts"],
  transform: {
    "\\.ts$": ["@swc/jest", { jsc: { parser: { syntax: "typescript" }, target: "es2022" }, module: { type: "es6" } }],
  },
  testEnvironmentOptions: { customExportConditions: ["@indigo-quill/source", "node", "node-addons"] },
  globalSetup: "<rootDir>/test/setup.js",
  globalTeardown: "<rootDir>/test/teardown.js",
  testTimeout: 60_000,
  // Much of the time is spent waiting for commands, engines and a browser: no processor need be left out.
  maxWorkers: "100%",
};
