import fc from 'fast-check'
import { runs } from './extent.ts'

// The same examples in every run, so that a failure is never luck; PROPERTY_SEED tries others.
fc.configureGlobal({ seed: Number(process.env.PROPERTY_SEED ?? 20_260_101), numRuns: runs(100) })
