import { StrictMode } from 'react'
import { renderToString } from 'react-dom/server'
import { PierChart } from './chart.tsx'

/** The page's content as a server draws it: the chart is its picture there, and comes alive in the browser. */
export const render = (): string =>
  renderToString(
    <StrictMode>
      <PierChart />
    </StrictMode>,
  )
