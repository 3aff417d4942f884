<script lang="ts">
import type { Happening } from 'dapplo'
import { file, type Pier } from './piers.ts'

let night = $state(false)
let clicked = $state('Click a bar.')
const json =
  `<script type="application/json">${JSON.stringify(file).replaceAll('<', '\\u003c')}<` + '/script>'
async function onclicked(event: Event) {
  const [row] = await (event as CustomEvent<Happening<Pier>>).detail.rows()
  clicked = row ? `Clicked: ${row.pier}` : 'Click a bar.'
}
</script>

<p><button type="button" onclick={() => (night = !night)}>{night ? 'By day' : 'By night'}</button></p>
<dapplo-chart theme={night ? 'night' : 'day'} style="height: 320px" {onclicked}>{@html json}</dapplo-chart>
<p id="clicked">{clicked}</p>
