import { expect, test } from 'vitest'
import { Kept } from './kept.ts'

/** Answers that wait until they are let go. */
function slow() {
  const asked: { key: string; give(): void; fail(): void; cancelled: boolean }[] = []
  const kept = new Kept<{ key: string }>(() => 1)
  const ask = (key: string) =>
    kept.find(key, began => {
      const one = { key, give: () => {}, fail: () => {}, cancelled: false }
      asked.push(one)
      began(() => {
        one.cancelled = true
      })
      return new Promise((done, failed) => {
        one.give = () => done({ key })
        one.fail = () => failed(new Error(key))
      })
    })
  return { asked, kept, ask }
}

test('equal questions are asked once, also while the first is on its way, and known answers come at once', async () => {
  const { asked, ask } = slow()
  const [first, second] = [ask('a'), ask('a')]
  expect(second).toBe(first)
  expect(asked.length).toBe(1)
  asked[0].give()
  await first
  expect(ask('a')).toEqual({ key: 'a' })
})

test('what nobody waits for any more is given up, and asked again when somebody does', async () => {
  const { asked, ask } = slow()
  const promise = ask('a')
  if (!('then' in promise)) throw new Error('it should be on its way')
  promise.hold?.()
  promise.hold?.()
  promise.release?.()
  expect(asked[0].cancelled).toBe(false)
  promise.release?.()
  expect(asked[0].cancelled).toBe(true)
  void ask('a')
  expect(asked.length).toBe(2)
})

test('a failure is not kept, and what was forgotten meanwhile is not either', async () => {
  const { asked, kept, ask } = slow()
  const failing = ask('a')
  asked[0].fail()
  await expect(failing).rejects.toThrow('a')
  const stale = ask('a')
  kept.forget()
  asked[1].give()
  await stale
  expect('then' in ask('a')).toBe(true)
})
