declare module "*.woff2" {
  const url: string;
  export default url;
}
