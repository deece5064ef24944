export default async function teardown() {
  await globalThis.deskServer?.close();
}
