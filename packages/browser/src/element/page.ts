/** The program of a self-contained page: brings its chart to life from the data written into the page. */
import { builtinKinds, DapploError } from '@dapplo/core'
import { openChartData } from '@dapplo/core/internal-files'
import { arrived, farTableOf } from '../far/far-source.ts'
import { mount } from '../full.ts'
import { speakToParent } from './frame-protocol.ts'

const place = document.getElementById('chart')
const data = document.getElementById('chart-data')?.textContent
if (place && data) {
  const { file, theme, locale, house } = JSON.parse(data)
  const { chart } = openChartData(
    file,
    builtinKinds,
    url => {
      throw new DapploError(
        'not-a-file',
        `"${url}" is not in this page`,
        'tables',
        'Write the page anew with its data.',
      )
    },
    'the page',
    undefined,
    farTableOf,
  )
  // What was answered when the page was written is here in a moment: until then its picture stays.
  await arrived(chart).catch(() => {})
  const live = mount(chart, place, {
    theme,
    house,
    locale,
    height: place.clientHeight || Number(place.dataset.height) || undefined,
  })
  if (window.parent !== window) speakToParent(live)
}
