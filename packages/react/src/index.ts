'use client'

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
import {
  type CSSProperties,
  createElement,
  Fragment,
  type ReactElement,
  type ReactNode,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react'
import { createPortal, flushSync } from 'react-dom'

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
  /**
   * What a tooltip also says, as React nodes, in the tree and with the context of the component: it is given the records
   * of what is pointed at. It goes before the tooltip of the description; of spreads each chart has its own.
   */
  tooltip?: (rows: R[]) => ReactNode
  /** Width in pixels of the picture that a server draws, before the page says how wide it is. Default 640. */
  width?: number
  className?: string
  style?: CSSProperties
}

const SIZE = { width: 640, height: 384 }

/** A chart on a page. On a server it is its picture, which stays until the chart comes alive in the browser. */
export function DapploChart<R = any>(props: DapploChartProps<R>): ReactElement {
  const {
    chart: given,
    state,
    onState,
    onLive,
    onFindings,
    width,
    className,
    style,
    tooltip,
    ...others
  } = props
  const { onPointed, onClicked, onDoubleClicked, onSelected, onHidden, onZoomed, onPlayed, ...options } =
    others
  const deeds = { onPointed, onClicked, onDoubleClicked, onSelected, onHidden, onZoomed, onPlayed }
  /** While React itself is at work, it does not draw at once. */
  const busy = useRef(false)
  const [chart, inTooltip] = useTooltip(given, tooltip, busy)
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
    const now = live.current
    if (now && now.chart !== chart) atWork(busy, () => now.show(chart))
  }, [chart])
  useEffect(() => {
    const now = live.current
    if (now && state !== undefined && now.state !== state)
      atWork(busy, () => {
        now.state = state
      })
  }, [state])
  const { theme, house, locale, background } = options
  useEffect(() => {
    live.current?.reframe({ theme, house, locale, background })
  }, [theme, house, locale, background])
  const panel = createElement('div', {
    ref: place,
    className,
    style: { width: '100%', height: options.height ?? SIZE.height, ...style },
    // In the browser the server's picture stays as it came, until the chart takes its place.
    suppressHydrationWarning: true,
    dangerouslySetInnerHTML: { __html: typeof document === 'undefined' ? pictureOf(props) : '' },
  })
  return createElement(Fragment, null, panel, inTooltip)
}

/** Does something within an effect of React's, and notes that it does. */
function atWork(busy: { current: boolean }, work: () => void): void {
  busy.current = true
  try {
    work()
  } finally {
    busy.current = false
  }
}

/** The chart with a place for nodes in its tooltip, and the nodes that stand there. */
function useTooltip<R>(
  chart: DapploChartProps<R>['chart'],
  tooltip: DapploChartProps<R>['tooltip'],
  busy: { readonly current: boolean },
): [DapploChartProps<R>['chart'], ReactNode] {
  const place = useRef<HTMLElement | undefined>(undefined)
  const [rows, setRows] = useState<R[] | undefined>(undefined)
  const wished = tooltip !== undefined
  const shown = useMemo(() => {
    if (!wished || 'charts' in chart) return chart
    return (chart as Chart<any>).with({
      tooltip: (rows: any[]) => {
        place.current ??= document.createElement('div')
        // At once, since the tooltip is placed by its size.
        if (busy.current) setRows(rows)
        else flushSync(() => setRows(rows))
        return place.current
      },
    })
  }, [chart, wished, busy])
  return [shown, tooltip && rows && place.current && createPortal(tooltip(rows), place.current)]
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
