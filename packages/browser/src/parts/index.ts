import { controls } from './controls.ts'
import { exploring } from './exploring.ts'
import { keyboard } from './keyboard.ts'
import { menu } from './menu.ts'
import { motion } from './motion.ts'
import { playback } from './playback.ts'
import { saving } from './saving.ts'
import { tableView } from './table-view.ts'

/** Everything that a chart on a page can do, in the order in which it is put there. */
export const allParts = [controls, playback, motion, exploring, tableView, saving, keyboard, menu] as const
