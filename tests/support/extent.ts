/** Whether everything is tried, as by `npm run test:all`; else what `npm test` has time for. */
export const everything = process.env.DAPPLO_ALL !== undefined

/** So many examples of a property: the first sixth of them, unless everything is tried. */
export const runs = (all: number): number => (everything ? all : Math.ceil(all / 6))
