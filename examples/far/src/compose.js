import { compose } from '@dapplo/compose'
import { farTable, lookFar, remoteEngine } from 'dapplo/far'

const name = new URLSearchParams(location.search).get('engine') ?? 'duckdb'
const sailings = await farTable(remoteEngine(`far/${name}`), 'sailings', { key: 'id', rowsAre: 'Sailings' })
window.composer = compose(document.querySelector('#composer'), {
  tables: sailings,
  look: await lookFar(sailings),
})
