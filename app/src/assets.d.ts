declare module '*.woff2' {
  const id: number;
  export default id;
}
