import { chart, type DapploError, type Live, mount, readCsv, setHouse } from 'dapplo'
import { readInWorker } from 'dapplo/worker'
import { theme } from './theme.ts'

const find = <E extends HTMLElement>(id: string) => document.getElementById(id) as E
const [status, progress] = [find('status'), find<HTMLProgressElement>('progress')]
const worker = new Worker(new URL('./reading.worker.ts', import.meta.url), { type: 'module' })
const routes = ['North Sound', 'Gannet Bay', 'Tern Point', 'Outer Skerries', 'Kelp Narrows']
let live: Live | undefined

/** A file as a person might choose it: so many sailings, one after the other. */
function madeUp(rows: number): File {
  const lines = ['id,departed,route,passengers']
  const start = Date.UTC(2023, 0, 1)
  for (let i = 0; i < rows; i++) {
    const departed = new Date(start + i * 94_000).toISOString().slice(0, 16)
    lines.push(`${i},${departed},${routes[(i * 7) % 5]},${(i * 37) % 240}`)
  }
  return new File([lines.join('\n')], 'sailings.csv', { type: 'text/csv' })
}

/** Reads a file, and measures the longest time between two frames meanwhile, in milliseconds. */
async function show(file: File): Promise<void> {
  progress.hidden = false
  let longest = 0
  let last = performance.now()
  let frame = requestAnimationFrame(function tick() {
    longest = Math.max(longest, performance.now() - last)
    last = performance.now()
    frame = requestAnimationFrame(tick)
  })
  try {
    const sailings = await readInWorker(worker, file, {
      name: 'sailings',
      progress: done => {
        progress.value = done
      },
    })
    const count = sailings.length.toLocaleString('en')
    status.textContent = `${count} rows read. The longest wait for a frame was ${Math.round(longest)} ms.`
    const by = { draw: 'line', x: 'month of departed', y: 'sum of passengers', color: 'route' } as const
    live ??= mount(chart(sailings, by), '#panel', { theme })
    live.show(chart(sailings, by))
    Object.assign(window, { charts: [live], longest })
  } catch (error) {
    status.textContent = (error as DapploError).sentence ?? String(error)
  } finally {
    cancelAnimationFrame(frame)
    progress.hidden = true
  }
}

// For a look from the console.
Object.assign(window, { reading: { worker, readInWorker, readCsv, setHouse } })
find('make').addEventListener('click', () => show(madeUp(1_000_000)))
find<HTMLInputElement>('file').addEventListener('change', event => {
  const [file] = (event.currentTarget as HTMLInputElement).files ?? []
  if (file) void show(file)
})
