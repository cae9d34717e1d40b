declare module 'munkres-js' {
  const munkres: (costs: number[][]) => [number, number][]
  export default munkres
}
