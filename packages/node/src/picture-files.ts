import { readFileSync } from 'node:fs'
import { extname, join } from 'node:path'
import { DapploError, type Scene } from '@dapplo/core'
import { safePicture } from '@dapplo/core/internal'
import { confinedFile } from './files.ts'

const TYPES: Record<string, string> = {
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.jpeg': 'image/jpeg',
  '.gif': 'image/gif',
  '.webp': 'image/webp',
  '.svg': 'image/svg+xml',
}

/** The scene with pictures from files written into it as data, so that the result stands alone. Throws `no-picture`. */
export function withPictures(scene: Scene, folder: string): Scene {
  if (!scene.batches.some(batch => batch.kind === 'images')) return scene
  const batches = scene.batches.map(batch =>
    batch.kind === 'images' ? { ...batch, hrefs: batch.hrefs.map(href => asData(href, folder)) } : batch,
  )
  return { ...scene, batches }
}

function asData(href: string, folder: string): string {
  const safe = safePicture(href)
  if (safe === undefined || /^(data|https?):/i.test(safe)) return href
  const type = TYPES[extname(safe).toLowerCase()]
  // A description from elsewhere must not be able to read files outside the folder that it lies in, through links either.
  const path = type && confinedFile(folder, join(folder, safe), 'images')
  if (!type || path === undefined) {
    throw new DapploError(
      'no-picture',
      type ? `There is no picture ${href}` : `${href} is no picture of a known kind`,
      'images',
      'Name a PNG, JPEG, GIF, WebP or SVG file, relative to the chart.',
    )
  }
  return `data:${type};base64,${readFileSync(path).toString('base64')}`
}
