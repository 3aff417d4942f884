declare module 'upng-js' {
  /** Encodes frames of RGBA bytes as PNG or APNG; `colors` 0 is without loss; delays in milliseconds. */
  export function encode(
    frames: ArrayBuffer[],
    width: number,
    height: number,
    colors: number,
    delays?: number[],
  ): ArrayBuffer
  const upng: { encode: typeof encode }
  export default upng
}
