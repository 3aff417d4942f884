import { createRequire } from 'node:module'

const upng = createRequire(import.meta.url)('upng-js') as {
  decode(file: ArrayBuffer): object
  toRGBA8(picture: object): ArrayBuffer[]
}

/** The pictures in a PNG or APNG, as RGBA bytes. */
export const picturesIn = (file: Uint8Array): Buffer[] =>
  upng.toRGBA8(upng.decode(file.slice().buffer as ArrayBuffer)).map(bytes => Buffer.from(bytes))
