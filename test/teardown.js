export default async function teardown() {
  for (const server of globalThis.servers ?? []) await server.close();
}
