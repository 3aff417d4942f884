import type { Background } from '../describe/description.ts'
import { type Images, type Rects, safePicture } from '../scene/scene.ts'
import { blend } from '../theme/contrast.ts'
import { type House, themeOnGround } from '../theme/house.ts'
import { day, night, type Theme } from '../theme/theme.ts'

/** A thinner veil than this over a picture would leave words unreadable somewhere. */
const LEAST_VEIL = 0.6
const VEIL = 0.85

const asObject = (wish: string | Background | undefined): Background | undefined =>
  typeof wish === 'string' ? { color: wish } : wish

/** The theme that suits a chart's background. */
export function groundTheme(
  theme: Theme,
  wish: string | Background | undefined,
  house: House | undefined,
): Theme {
  const background = asObject(wish)
  if (!background) return theme
  const ground = background.color ?? theme.background
  if (!background.image) return themeOnGround(theme, ground, house)
  const suited = themeOnGround(theme, ground, house)
  // Under a veil, a picture can be no darker, or lighter, than this.
  const worst = blend(ground, suited.name === 'night' ? '#ffffff' : '#000000', 1 - veilOf(background))
  const own = themeOnGround(theme, ground, house, worst)
  // Stripes let the picture through, unless a house has its own.
  if (own.stripe === theme.stripe && own.stripe !== (own.name === 'night' ? night : day).stripe) return own
  return { ...own, stripe: own.name === 'night' ? 'rgba(255, 255, 255, 0.07)' : 'rgba(0, 0, 0, 0.06)' }
}

const veilOf = ({ veil = VEIL }: Background) => Math.max(LEAST_VEIL, Math.min(1, veil))

/** The picture behind a chart, and its veil. */
export function groundShapes(
  wish: string | Background | undefined,
  width: number,
  height: number,
  theme: Theme,
): (Images | Rects)[] {
  const background = asObject(wish)
  const href = background?.image === undefined ? undefined : safePicture(background.image)
  if (!background || href === undefined) return []
  const whole = {
    part: 'guide' as const,
    clip: false,
    keys: ['ground'],
    colors: [theme.background],
    color: new Uint16Array(1),
    x: new Float32Array(1),
    y: new Float32Array(1),
    width: Float32Array.of(width),
    height: Float32Array.of(height),
  }
  return [
    { ...whole, kind: 'images', id: 'ground/picture', hrefs: [href], words: [''], cover: true },
    {
      ...whole,
      kind: 'rects',
      id: 'ground/veil',
      alpha: Float32Array.of(veilOf(background)),
      round: new Uint8Array(1),
      radius: 0,
    },
  ]
}
