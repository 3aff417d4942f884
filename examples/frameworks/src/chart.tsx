import { DapploChart } from '@dapplo/react'
import type { Live, State } from 'dapplo'
import { useRef, useState } from 'react'
import { bars, type Pier } from './piers.ts'

/** A chart whose state the application keeps, and what is selected in it. */
export function PierChart() {
  const [state, setState] = useState<State>({})
  const [selected, setSelected] = useState<Pier[]>([])
  const [lying, setLying] = useState(true)
  const live = useRef<Live<Pier> | undefined>(undefined)
  const shown = lying ? bars : upright
  return (
    <main>
      <p>
        <button type="button" onClick={() => setLying(!lying)}>
          {lying ? 'Stand the bars up' : 'Lay the bars down'}
        </button>{' '}
        <button type="button" onClick={() => setState({})}>
          Select nothing
        </button>
      </p>
      <DapploChart<Pier>
        chart={shown}
        height={320}
        state={state}
        onState={async next => {
          setState(next)
          setSelected((await live.current?.selectedRows()) ?? [])
        }}
        onLive={now => {
          live.current = now as Live<Pier> | undefined
        }}
        tooltip={rows => <em>{rows.map(({ pier, year }) => `${pier}, ${year}`).join('; ')}</em>}
      />
      <p id="selected">
        {selected.length === 0 ? 'Click a bar.' : `Selected: ${selected.map(({ pier }) => pier).join(', ')}`}
      </p>
    </main>
  )
}

const upright = bars.with({ x: 'pier', y: 'passengers' })
