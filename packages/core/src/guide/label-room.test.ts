import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { Batch, Box } from '../scene/scene.ts'
import { LabelRoom, textBox } from './label-room.ts'

const plot: Box = { x: 0, y: 0, width: 300, height: 200 }
const coordinate = fc.integer({ min: -20, max: 320 })
const box = fc.record({
  x: coordinate,
  y: coordinate,
  width: fc.integer({ min: 1, max: 80 }),
  height: fc.integer({ min: 1, max: 20 }),
})
const shapes = { part: 'data', clip: true, keys: [], colors: ['#006569'] } as const
const discs = (list: readonly { x: number; y: number }[]): Batch => ({
  ...shapes,
  kind: 'discs',
  id: 'discs',
  color: new Uint16Array(list.length),
  x: Float32Array.from(list, one => one.x),
  y: Float32Array.from(list, one => one.y),
  radius: new Float32Array(list.length).fill(4),
})
const rects = (list: readonly Box[]): Batch => ({
  ...shapes,
  kind: 'rects',
  id: 'rects',
  color: new Uint16Array(list.length),
  x: Float32Array.from(list, one => one.x),
  y: Float32Array.from(list, one => one.y),
  width: Float32Array.from(list, one => one.width),
  height: Float32Array.from(list, one => one.height),
  round: new Uint8Array(list.length),
  radius: 0,
})
const meets = (a: Box, b: Box) =>
  a.x <= b.x + b.width && b.x <= a.x + a.width && a.y <= b.y + b.height && b.y <= a.y + a.height

test('a place is free where it lies in the plot and touches no label that stands already', () => {
  fc.assert(
    fc.property(fc.array(box, { maxLength: 20 }), box, (labels, place) => {
      const room = new LabelRoom(plot, [])
      for (const label of labels) room.take(label)
      const inside =
        place.x >= 0 && place.y >= 0 && place.x + place.width <= 300 && place.y + place.height <= 200
      const padded = { x: place.x - 2, y: place.y - 2, width: place.width + 4, height: place.height + 4 }
      // Edges that only just meet at the gap are apart.
      const touched = labels.some(
        other =>
          padded.x < other.x + other.width &&
          other.x < padded.x + padded.width &&
          padded.y < other.y + other.height &&
          other.y < padded.y + padded.height,
      )
      expect(room.isFree(place)).toBe(inside && !touched)
    }),
  )
})

test('a place is clear of points, and bare of bars too', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ x: coordinate, y: coordinate }), { maxLength: 30 }),
      fc.array(box, { maxLength: 10 }),
      box,
      (points, bars, place) => {
        const room = new LabelRoom(plot, [discs(points), rects(bars)])
        const onPoint = points.some(({ x, y }) => meets({ x: x - 4, y: y - 4, width: 8, height: 8 }, place))
        const under = bars.filter(bar => meets(bar, place))
        expect(room.isClear(place)).toBe(!onPoint)
        expect(room.isBare(place)).toBe(!onPoint && under.length === 0)
        const [bar] = under
        const whole =
          under.length === 1 &&
          place.x >= bar.x &&
          place.y >= bar.y &&
          place.x + place.width <= bar.x + bar.width &&
          place.y + place.height <= bar.y + bar.height
        expect(room.groundOf(place)).toBe(whole && !onPoint ? '#006569' : undefined)
      },
    ),
  )
})

test('the box of a text lies around its anchor', () => {
  const font = { size: 10, weight: 400 } as const
  expect(textBox(50, font, 100, 80, 'start')).toMatchObject({ x: 100, width: 50 })
  expect(textBox(50, font, 100, 80, 'middle').x).toBe(75)
  expect(textBox(50, font, 100, 80, 'end').x).toBe(50)
  const { y, height } = textBox(50, font, 100, 80, 'start')
  expect(y).toBeLessThan(80)
  expect(y + height).toBeGreaterThan(80)
})
