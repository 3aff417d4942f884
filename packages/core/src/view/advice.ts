import { advise } from '../bind/regret/regrets.ts'
import { wordsLeftOut } from '../pane/left-out.ts'
import { unreadLooks } from '../resolve/unread-looks.ts'
import type { ChartParts } from './chart.ts'
import { frameFindings } from './frame-findings.ts'

/** Looks for everything that a person would regret although a chart can be drawn. */
export const advice: NonNullable<ChartParts['advise']> = {
  looks: unreadLooks,
  picture: advise,
  words: wordsLeftOut,
  frame: frameFindings,
}
