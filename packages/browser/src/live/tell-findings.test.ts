import type { Finding } from '@dapplo/core/small'
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { whenIdle } from '../page/idle.ts'
import { Findings } from './tell-findings.ts'

const finding: Finding = { code: 'one-far-value', message: 'A value is far', remedy: 'Look at it', path: '' }
const at = (hostname: string) => vi.stubGlobal('location', { protocol: 'https:', hostname })
const idle = () => new Promise<void>(resolve => whenIdle(resolve))
const clock = { now: 0 }
beforeEach(() => {
  clock.now = 0
  vi.spyOn(performance, 'now').mockImplementation(() => clock.now)
})
afterEach(() => {
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
})

test('are looked for once the page is idle, once for all that has changed, and told when they are others', async () => {
  at('line.example')
  let now: readonly Finding[] = [finding]
  const look = vi.fn(() => now)
  const told: (readonly Finding[])[] = []
  const findings = new Findings(look, () => found => told.push(found))
  for (let i = 0; i < 3; i++) findings.changed()
  expect(look).not.toHaveBeenCalled()
  await idle()
  expect(told).toEqual([[finding]])
  expect(look).toHaveBeenCalledTimes(1)
  findings.changed()
  await idle()
  expect([look.mock.calls.length, told.length]).toEqual([2, 1])
  now = []
  findings.changed()
  findings.end()
  // A picture that comes late.
  findings.changed()
  await idle()
  expect(told.length).toBe(1)
})

test('are not looked for where nobody wants to know, and end in the console where a page is made', async () => {
  const look = vi.fn(() => [finding])
  const warn = vi.spyOn(console, 'warn').mockImplementation(() => {})
  at('line.example')
  new Findings(look, () => undefined).changed()
  await idle()
  expect(look).not.toHaveBeenCalled()
  at('localhost')
  for (let charts = 0; charts < 2; charts++) new Findings(look, () => undefined).changed()
  await idle()
  expect(warn.mock.calls).toEqual([['A value is far. Look at it [one-far-value]']])
  warn.mockRestore()
})

test('that take long to find are looked for the less often', async () => {
  at('line.example')
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
  const look = vi.fn(() => {
    clock.now += 100
    return [finding]
  })
  const findings = new Findings(look, () => () => {})
  const later = async (milliseconds: number) => {
    clock.now += milliseconds
    findings.changed()
    await vi.advanceTimersByTimeAsync(milliseconds)
  }
  await later(50)
  await later(50)
  expect(look).toHaveBeenCalledTimes(1)
  await later(500)
  expect(look).toHaveBeenCalledTimes(1)
  await later(2000)
  await later(50)
  expect(look).toHaveBeenCalledTimes(2)
  vi.useRealTimers()
})
