import { englishNumbers } from './english-numbers.ts'
import { writeNumbersBy } from './intl-numbers.ts'

/** Writes English numbers without `Intl`, alike to the letter: for programs that draw one chart and end. */
export const writeEnglishQuickly = (): void => writeNumbersBy(englishNumbers)
