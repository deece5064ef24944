declare module "*?raw" {
  const text: string;
  export default text;
}
declare module "*.css" {}
