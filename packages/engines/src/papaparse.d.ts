/** The part of papaparse that is used. */
declare module 'papaparse' {
  const Papa: {
    unparse(rows: unknown[][], config: { quotes: (value: unknown) => boolean }): string
  }
  export default Papa
}
