declare module '*?shared-worker-url' {
  /** The address to start the worker from, as a module. */
  const address: string
  export default address
}
