/** Dapplo charts as a React component: a thin face over `mount`. */
import { compose, paintSvg } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import { type Chart, type Live, type MountOptions, mount, type Spread, type State } from 'dapplo'
import { type CSSProperties, createElement, type ReactElement, useEffect, useRef } from 'react'

export interface DapploChartProps extends Omit<MountOptions, 'onDestroy' | 'state'> {
  /** The chart or spread that is shown. Another one is glided to; make charts outside of components or with `useMemo`. */
  chart: Chart<any> | Spread
  /** What the person has done. Given, it is shown as it is told; left out, the chart keeps its own. */
  state?: State
  /** Told of every change of the state. */
  onState?: (state: State) => void
  /** Given the live chart once it is on the page, and undefined when it goes. */
  onLive?: (live: Live | undefined) => void
  /** Width in pixels of the picture that a server draws, before the page says how wide it is. Default 640. */
  width?: number
  className?: string
  style?: CSSProperties
}

const SIZE = { width: 640, height: 384 }

/** A chart on a page. On a server it is its picture, which stays until the chart comes alive in the browser. */
export function DapploChart(props: DapploChartProps): ReactElement {
  const { chart, state, onState, onLive, onFindings, width, className, style, ...options } = props
  const place = useRef<HTMLDivElement>(null)
  const live = useRef<Live | undefined>(undefined)
  const told = useRef({ onState, onLive, onFindings })
  told.current = { onState, onLive, onFindings }
  const first = useRef({ chart, state, options })
  useEffect(() => {
    const now = mount(first.current.chart, place.current!, {
      ...first.current.options,
      state: first.current.state,
      onFindings: findings => told.current.onFindings?.(findings),
    })
    live.current = now
    now.watch(changed => told.current.onState?.(changed))
    told.current.onLive?.(now)
    return () => {
      live.current = undefined
      told.current.onLive?.(undefined)
      now.destroy()
    }
  }, [])
  useEffect(() => {
    if (live.current && live.current.chart !== chart) live.current.show(chart)
  }, [chart])
  useEffect(() => {
    if (live.current && state !== undefined && live.current.state !== state) live.current.state = state
  }, [state])
  const { theme, house, locale, background } = options
  useEffect(() => {
    live.current?.reframe({ theme, house, locale, background })
  }, [theme, house, locale, background])
  return createElement('div', {
    ref: place,
    className,
    style: { width: '100%', height: options.height ?? SIZE.height, ...style },
    // In the browser the server's picture stays as it came, until the chart takes its place.
    suppressHydrationWarning: true,
    dangerouslySetInnerHTML: { __html: typeof document === 'undefined' ? pictureOf(props) : '' },
  })
}

/** The picture of a chart, as a server draws it: safe by construction, since every text in it is escaped. */
function pictureOf({
  chart,
  state = {},
  theme,
  house,
  locale,
  background,
  width,
  height,
}: DapploChartProps): string {
  const frame = {
    width: width ?? SIZE.width,
    height: height ?? SIZE.height,
    theme: theme === 'auto' ? ('day' as const) : theme,
    house,
    locale,
    background,
    measure: measureInter,
  }
  return paintSvg(compose(chart as Chart, state, frame))
}
