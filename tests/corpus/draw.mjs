import { chart, DapploError, table } from '@dapplo/core'
import { findingsOf, sceneOf } from '@dapplo/node'
import { TABLES } from './tables.mjs'

/** A picture of the corpus as its scene and what is told of it, or the sentence that refuses it. */
export function drawPicture({ table: name, description, frame }) {
  try {
    const drawn = chart(table(TABLES[name], { name }), description)
    return { scene: sceneOf(drawn, frame), findings: findingsOf(drawn, frame) }
  } catch (error) {
    if (!(error instanceof DapploError)) throw error
    return { findings: [], refusal: error.message }
  }
}
