import type { Page } from 'playwright-core'
import { engine } from './browser.ts'

/** Where a finger touches the page. */
export interface Finger {
  x: number
  y: number
  id?: number
}

/** What fingers do: they come down, move, and are lifted all together. */
export interface Fingers {
  down(...fingers: Finger[]): Promise<void>
  move(...fingers: Finger[]): Promise<void>
  up(): Promise<void>
}

/** Fingers on a page: real ones of Chromium's driver; in Firefox, whose driver has none, events as fingers make them. */
export async function fingersOn(page: Page): Promise<Fingers> {
  if (engine === 'firefox') return eventsOn(page)
  const client = await page.context().newCDPSession(page)
  const touch = async (type: 'touchStart' | 'touchMove' | 'touchEnd', fingers: Finger[]) => {
    await client.send('Input.dispatchTouchEvent', { type, touchPoints: fingers })
  }
  return {
    down: (...fingers) => touch('touchStart', fingers),
    move: (...fingers) => touch('touchMove', fingers),
    up: () => touch('touchEnd', []),
  }
}

function eventsOn(page: Page): Fingers {
  let last: Finger[] = []
  const tell = (type: string, fingers: Finger[]) =>
    page.evaluate(
      ([type, fingers]) => {
        fingers.forEach(({ x, y, id = 1 }, i) => {
          const held = document as Document & { heldBy?: Map<number, Element> }
          held.heldBy ??= new Map()
          // A finger stays with what it came down on.
          const target = held.heldBy.get(id) ?? document.elementFromPoint(x, y) ?? document.body
          if (type === 'pointerdown') held.heldBy.set(id, target)
          const up = type === 'pointerup'
          target.dispatchEvent(
            new PointerEvent(type, {
              bubbles: true,
              cancelable: true,
              composed: true,
              pointerType: 'touch',
              pointerId: id + 10,
              isPrimary: i === 0,
              clientX: x,
              clientY: y,
              buttons: up ? 0 : 1,
            }),
          )
          if (!up) return
          held.heldBy.delete(id)
          if (fingers.length === 1)
            target.dispatchEvent(
              new MouseEvent('click', { bubbles: true, cancelable: true, clientX: x, clientY: y }),
            )
        })
      },
      [type, fingers] as const,
    )
  return {
    down: (...fingers) => {
      last = fingers
      return tell('pointerdown', fingers)
    },
    move: (...fingers) => {
      last = fingers
      return tell('pointermove', fingers)
    },
    up: () => tell('pointerup', last),
  }
}
