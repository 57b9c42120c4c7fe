declare module '*.woff2' {
  /** The bundler's number for a face, as the loader of faces takes it. */
  const face: number;
  export default face;
}
