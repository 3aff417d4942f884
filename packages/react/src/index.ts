/** Dapplo charts as a React component: a thin face over `mount`. */
import { compose, paintSvg } from '@dapplo/core'
import { measureInter } from '@dapplo/core/inter'
import {
  type Chart,
  type Happening,
  type Live,
  type MountOptions,
  mount,
  type Spread,
  type State,
} from 'dapplo'
import { type CSSProperties, createElement, type ReactElement, useEffect, useRef } from 'react'

/** What a person does, by the property that is told of it. Each may prevent what the chart would do. */
const DEEDS = {
  onPointed: 'pointed',
  onClicked: 'clicked',
  onDoubleClicked: 'doubleClicked',
  onSelected: 'selected',
  onHidden: 'hidden',
  onZoomed: 'zoomed',
  onPlayed: 'played',
} as const

type Told = keyof typeof DEEDS

/** What the component is given: a chart, how it is shown, and who is told of what. */
export interface DapploChartProps<R = any>
  extends Omit<MountOptions, 'onDestroy' | 'state'>,
    Partial<Record<Told, (happening: Happening<R>) => void>> {
  /** The chart or spread that is shown. Another one is glided to; make charts outside of components or with `useMemo`. */
  chart: Chart<R> | Chart<any> | Spread
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
export function DapploChart<R = any>(props: DapploChartProps<R>): ReactElement {
  const { chart, state, onState, onLive, onFindings, width, className, style, ...others } = props
  const { onPointed, onClicked, onDoubleClicked, onSelected, onHidden, onZoomed, onPlayed, ...options } =
    others
  const deeds = { onPointed, onClicked, onDoubleClicked, onSelected, onHidden, onZoomed, onPlayed }
  const place = useRef<HTMLDivElement>(null)
  const live = useRef<Live | undefined>(undefined)
  const told = useRef({ onState, onLive, onFindings, ...deeds })
  told.current = { onState, onLive, onFindings, ...deeds }
  const first = useRef({ chart, state, options })
  useEffect(() => {
    const now = mount(first.current.chart, place.current!, {
      ...first.current.options,
      state: first.current.state,
      onFindings: findings => told.current.onFindings?.(findings),
    })
    live.current = now
    now.watch(changed => told.current.onState?.(changed))
    for (const name of Object.keys(DEEDS) as Told[])
      now.when(DEEDS[name], happening => told.current[name]?.(happening))
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
}: DapploChartProps<any>): string {
  const frame = {
    width: width ?? SIZE.width,
    height: height ?? SIZE.height,
    theme: theme === 'auto' ? ('day' as const) : theme,
    house,
    locale,
    background,
    measure: measureInter,
  }
  return paintSvg(compose(chart as Chart, state, frame), { measure: measureInter })
}
