import { autocompletion, type CompletionContext } from '@codemirror/autocomplete'
import { json, jsonParseLinter } from '@codemirror/lang-json'
import { syntaxTree } from '@codemirror/language'
import { type Diagnostic, linter } from '@codemirror/lint'
import type { Composed } from '@dapplo/compose'
import { basicSetup, EditorView } from 'codemirror'
import schema from './chart.schema.json'

const FIRST = `{
  "draw": "line",
  "x": "month of departed",
  "y": "sum of passengers",
  "color": "route",
  "title": "Passengers by route"
}`
/** What an address holds at most. */
const LONGEST = 32 * 1024
const chartSchema: any = (schema as any).anyOf[0]

/** The parts of the schema that may stand where the path leads. */
function partsAt(path: readonly string[]): any[] {
  let here: any[] = [chartSchema]
  const open = (part: any): any[] => (part?.anyOf ? part.anyOf.flatMap(open) : [part])
  for (const key of path)
    here = here
      .flatMap(open)
      .flatMap(part =>
        part.properties?.[key]
          ? [part.properties[key]]
          : /^\d+$/.test(key) && part.items
            ? [part.items]
            : typeof part.additionalProperties === 'object'
              ? [part.additionalProperties]
              : [],
      )
  return here.flatMap(open)
}

/** The keys that lead to a place in the text, outermost first. */
function pathAt(context: CompletionContext): string[] {
  const path: string[] = []
  for (let node: any = syntaxTree(context.state).resolveInner(context.pos, -1); node; node = node.parent)
    if (node.name === 'Property') {
      const name = node.getChild('PropertyName')
      if (name && context.pos > name.to) path.unshift(context.state.sliceDoc(name.from + 1, name.to - 1))
    }
  return path
}

export async function startTrial(root: HTMLElement): Promise<() => void> {
  const [dapplo, { compose }] = await Promise.all([import('dapplo'), import('@dapplo/compose')])
  const [editor, place, said, file] = ['.editor', '.place', '.said', '.file'].map(
    name => root.querySelector(name)!,
  ) as [HTMLElement, HTMLElement, HTMLElement, HTMLInputElement]
  const given = new URLSearchParams(location.hash.slice(1))
  let data = given.get('data') ?? (await (await fetch('/sailings.csv')).text())
  let own = given.has('data')
  let sailings = dapplo.readCsv(data)
  let composer: Composed | undefined
  let problem: any
  /** Whether the sentence has just written the text. */
  let written = false

  const complete = (context: CompletionContext) => {
    const word = context.matchBefore(/"[^"\n]*/)
    if (!word && !context.explicit) return null
    const path = pathAt(context)
    const node = syntaxTree(context.state).resolveInner(context.pos, -1)
    const isKey =
      node.name === 'PropertyName' ||
      node.name === 'Object' ||
      /[{,]\s*"[^"]*$/.test(context.state.sliceDoc(0, context.pos))
    const parts = partsAt(path)
    const texts = isKey
      ? parts.flatMap(part =>
          Object.entries(part.properties ?? {}).map(([label, own]: [string, any]) => ({
            label,
            info: own.description,
          })),
        )
      : [
          ...parts.flatMap(part => [
            ...(part.enum ?? []),
            ...(typeof part.const === 'string' ? [part.const] : []),
          ]),
          ...(/^(x|y|color|series|size|shape|dash|label|panes|through|link)$/.test(path.at(-1) ?? '')
            ? phrases()
            : []),
        ].map(label => ({ label: String(label) }))
    return {
      from: word ? word.from + 1 : context.pos,
      options: texts.map(option => ({ ...option, apply: word ? option.label : `"${option.label}"` })),
      validFor: /^[^"]*$/,
    }
  }
  const phrases = () =>
    sailings.names
      .flatMap((name: string) => {
        const { type } = sailings.column(name)
        if (type === 'number') return [`sum of ${name}`, `mean of ${name}`, `bins of ${name}`, name]
        return type === 'time'
          ? [`day of ${name}`, `month of ${name}`, `year of ${name}`, `weekday of ${name}`]
          : [name]
      })
      .concat('count')

  const draw = () => {
    const text = view.state.doc.toString()
    problem = undefined
    try {
      const description = JSON.parse(text)
      if (composer && !written) composer.show(description)
      composer ??= compose(place, {
        tables: sailings,
        chart: description,
        theme: document.documentElement.classList.contains('dark') ? 'night' : 'day',
        onChange: next => {
          const now = JSON.stringify(next, null, 2)
          if (JSON.stringify(parsed()) === JSON.stringify(next)) return
          written = true
          view.dispatch({ changes: { from: 0, to: view.state.doc.length, insert: now } })
        },
      })
      written = false
      said.textContent = ''
    } catch (error: any) {
      problem = error
      said.textContent = error.sentence ?? error.message
    }
    keep(text)
  }
  const parsed = (): unknown => {
    try {
      return JSON.parse(view.state.doc.toString())
    } catch {
      return undefined
    }
  }
  const keep = (text: string) => {
    const hash = new URLSearchParams({ chart: text, ...(own ? { data } : {}) }).toString()
    if (hash.length <= LONGEST) history.replaceState(null, '', `#${hash}`)
    else {
      history.replaceState(null, '', ' ')
      said.textContent =
        `${said.textContent} These data are too long for an address: they stay in this page.`.trim()
    }
  }
  const faults = (view: EditorView): Diagnostic[] => {
    const path: string = problem?.path ?? ''
    const key = path
      .split(/[.[\]]+/)
      .filter(Boolean)
      .at(-1)
    const at = key ? view.state.doc.toString().lastIndexOf(`"${key}"`) : -1
    return problem?.sentence && at >= 0
      ? [{ from: at, to: at + key!.length + 2, severity: 'error', message: problem.sentence }]
      : []
  }
  let timer = 0
  const view = new EditorView({
    doc: given.get('chart') ?? FIRST,
    parent: editor,
    extensions: [
      basicSetup,
      json(),
      linter(jsonParseLinter()),
      linter(faults, { delay: 400 }),
      autocompletion({ override: [complete] }),
      EditorView.lineWrapping,
      EditorView.updateListener.of(update => {
        if (!update.docChanged) return
        clearTimeout(timer)
        timer = window.setTimeout(draw, 250)
      }),
    ],
  })
  const take = async (taken: File | undefined) => {
    if (!taken) return
    try {
      data = await taken.text()
      own = true
      sailings = /^\s*[[{]/.test(data) ? dapplo.readJson(data) : dapplo.readCsv(data)
      composer?.destroy()
      composer = undefined
      said.textContent = `${taken.name}: ${sailings.length} rows; columns ${sailings.names.join(', ')}.`
      draw()
    } catch (error: any) {
      said.textContent = error.sentence ?? error.message
    }
  }
  file.addEventListener('change', () => void take(file.files?.[0]))
  root.addEventListener('dragover', event => event.preventDefault())
  root.addEventListener('drop', event => {
    event.preventDefault()
    void take(event.dataTransfer?.files[0])
  })
  draw()
  return () => {
    clearTimeout(timer)
    view.destroy()
    composer?.destroy()
  }
}
