import { controls } from './controls/part.ts'
import { exploring } from './explore/exploring.ts'
import { keyboard } from './keys/keyboard.ts'
import { motion } from './live/motion.ts'
import { menu } from './menu/part.ts'
import { playback } from './play/playback.ts'
import { saving } from './save/saving.ts'
import { tableView } from './tables/table-view.ts'
import { renewing } from './waiting/renewing.ts'

/** Everything that a chart on a page can do, in the order in which it is put there. */
export const allParts = [
  controls,
  playback,
  motion,
  exploring,
  tableView,
  saving,
  keyboard,
  menu,
  renewing,
] as const
