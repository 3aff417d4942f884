'use client'

/** The composer as a React component: a thin face over `compose`. */
import { type CSSProperties, createElement, type ReactElement, useEffect, useRef } from 'react'
import type { ColumnTypes } from './chart-from.ts'
import { Composer } from './composer.ts'
import type { Composed, ComposeOptions } from './options.ts'

/** What the component is given: what `compose` takes, and how its place looks. */
export interface DapploComposerProps extends ComposeOptions {
  /** Given the composer once it is on the page, and undefined when it goes. */
  onComposer?: (composer: Composed | undefined) => void
  className?: string
  style?: CSSProperties
}

/**
 * A composer on a page. What is drawn at first is `chart`, once; afterwards the person decides. Other tables, another theme,
 * language or house begin it anew with what is drawn then.
 */
export function DapploComposer(props: DapploComposerProps): ReactElement {
  const { tables, look, theme, locale, house, words, allow, className, style } = props
  const place = useRef<HTMLDivElement>(null)
  const now = useRef<ComposeOptions['chart']>(props.chart)
  const said = useRef<ColumnTypes | undefined>(props.types)
  const told = useRef(props)
  told.current = props
  useEffect(() => {
    const composer = new Composer(place.current!, {
      tables,
      look,
      theme,
      locale,
      house,
      words,
      allow,
      chart: now.current,
      types: said.current,
      onChange: description => {
        now.current = description
        told.current.onChange?.(description)
      },
      ...(told.current.onTypes
        ? {
            onTypes: (types: ColumnTypes) => {
              said.current = types
              told.current.onTypes?.(types)
            },
          }
        : {}),
      onDone: description => told.current.onDone?.(description),
    })
    told.current.onComposer?.(composer)
    return () => {
      told.current.onComposer?.(undefined)
      composer.destroy()
    }
  }, [tables, look, theme, locale, house, words, allow])
  return createElement('div', { ref: place, className, style })
}
