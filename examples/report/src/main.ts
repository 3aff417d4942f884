import { type Composed, chartFrom, compose, type Drawn } from '@dapplo/compose'
import { sentenceOf, typesOf } from '@dapplo/core/sentence'
import { type Live, mount, readCsv } from 'dapplo'
import sailingsText from '../../../demo-data/sailings.csv?raw'

const sailings = readCsv(sailingsText, { name: 'sailings', rowsAre: 'Sailings', key: 'id' })

/** What the server keeps: the descriptions, and how often they have been saved. */
interface Report {
  version: number
  charts: Drawn[]
}

const name = new URLSearchParams(location.search).get('report') ?? 'monthly'
const address = `reports/${encodeURIComponent(name)}`
const place = document.getElementById('report')!
const said = document.getElementById('said')!
let version = 0
let panes: Pane[] = []

/** A chart of the report, which a person reads or composes. */
class Pane {
  readonly element = document.createElement('section')
  description: Drawn | undefined
  private live: Live | undefined
  private composer: Composed | undefined

  constructor(description?: Drawn) {
    this.description = description
    place.append(this.element)
    if (description) this.read()
    else this.compose()
  }

  private clear(): void {
    this.live?.destroy()
    this.composer?.destroy()
    this.live = undefined
    this.composer = undefined
    this.element.replaceChildren()
  }

  private read(): void {
    this.clear()
    const { description } = this
    if (!description) return this.remove()
    this.element.className = ''
    const shown = document.createElement('div')
    shown.className = 'chart'
    const words = document.createElement('p')
    words.textContent = sentenceOf(description, { columns: typesOf(sailings) }).text
    this.element.append(
      shown,
      words,
      button('Change', () => this.compose()),
      ' ',
      button('Take out', () => this.remove()),
    )
    this.live = mount(chartFrom(sailings, description), shown)
  }

  private compose(): void {
    this.clear()
    this.element.className = 'composed'
    const inside = document.createElement('div')
    this.element.append(inside)
    this.composer = compose(inside, {
      tables: sailings,
      chart: this.description,
      onChange: description => {
        this.description = description
      },
      onDone: () => this.read(),
    })
  }

  remove(): void {
    this.clear()
    this.element.remove()
    panes = panes.filter(pane => pane !== this)
  }
}

function button(text: string, act: () => void): HTMLButtonElement {
  const made = document.createElement('button')
  made.type = 'button'
  made.textContent = text
  made.addEventListener('click', act)
  return made
}

/** Shows what the server keeps. */
async function load(): Promise<void> {
  const answer = await fetch(address)
  const report: Report = answer.ok ? await answer.json() : { version: 0, charts: [] }
  for (const pane of [...panes]) pane.remove()
  version = report.version
  panes = report.charts.map(description => new Pane(description))
}

async function save(over = version): Promise<void> {
  const charts = panes.flatMap(({ description }) => description ?? [])
  const answer = await fetch(address, {
    method: 'PUT',
    headers: { 'content-type': 'application/json', 'if-match': String(over) },
    body: JSON.stringify({ charts }),
  })
  if (answer.ok) {
    version = (await answer.json()).version
    said.textContent = `Saved, ${charts.length === 1 ? 'one chart' : `${charts.length} charts`}.`
  } else if (answer.status === 409) {
    // Somebody was quicker: neither report is lost.
    const theirs = (await answer.json()).version as number
    said.replaceChildren(
      'Somebody else has saved this report meanwhile. ',
      button('Show theirs', () => void load().then(() => said.replaceChildren('This is what they saved.'))),
      ' ',
      button('Save mine over it', () => void save(theirs)),
    )
  } else said.textContent = `It could not be saved: ${await answer.text()}`
}

document.getElementById('add')!.addEventListener('click', () => panes.push(new Pane()))
document.getElementById('save')!.addEventListener('click', () => void save())
await load()
