/** The same as a module: whoever imports it has the element, and the library by name. */
import './alone.ts'

export * from '../index.ts'
