/** The part of papaparse that is used; its published types would bring in those of the page and of Node. */
declare module 'papaparse' {
  interface ParseError {
    type: string
    code: string
    message: string
    row?: number
  }
  interface ParseResult<T> {
    data: T[]
    errors: ParseError[]
  }
  const Papa: {
    parse<T>(
      text: string,
      config: { delimiter: string; header: boolean; skipEmptyLines: boolean; preview?: number },
    ): ParseResult<T>
    unparse(data: { fields: string[]; data: unknown[][] }, config?: { newline?: string }): string
  }
  export default Papa
}
