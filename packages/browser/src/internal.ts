/** What the packages beside the browser's are made with: no part of its public face, and free to change. */

export { Images } from './live/images.ts'
export { pageFrame, pageLocale, pageTheme } from './live/page-frame.ts'
