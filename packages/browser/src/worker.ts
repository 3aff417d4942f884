/** For the module of a worker that reads data for pages: none of what draws. */
export { readForPages } from './feed/read-in-worker.ts'
