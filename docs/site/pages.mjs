// The pages of the site: those of docs/, with the chart of every snippet beside it, and those that are made from sources.
import { copyFileSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { chartsOf } from './charts.mjs'
import { codesPage, commandsPage, optionsPage, wordsPage } from './reference.mjs'

const HOME = `---
layout: home
hero:
  name: Dapplo
  text: Charts in plain words
  tagline: Say what goes where, and a chart comes back that is fit to publish, live on a page, or drawn to a file.
  actions:
    - { theme: brand, text: Start, link: /start }
    - { theme: alt, text: Recipes, link: /recipes/ }
    - { theme: alt, text: Try it, link: /try }
features:
  - { title: Phrases, details: "“sum of passengers” by “month of departed”. A misspelt one is a compiler error that suggests the right one." }
  - { title: "Honest", details: "What is left out, guessed or has no effect is said, everywhere, in a plain sentence with a remedy." }
  - { title: Live, details: "Append, put, remove: every chart over the table follows. A changed row costs its group, not the table." }
  - { title: Everywhere, details: "The same description on a page, in React, as SVG, PNG, PDF, film, mail, or in a terminal." }
---
`

/** Writes the pages into a folder, and what they show into its public part. `only`: of the guide and the recipes these alone. */
export async function writePages(root, folder, only) {
  const docs = join(root, 'docs')
  const charts = join(folder, 'public/charts')
  mkdirSync(charts, { recursive: true })
  mkdirSync(join(folder, 'recipes'))
  copyFileSync(
    join(root, 'packages/browser/dist/dapplo.element.js'),
    join(folder, 'public/dapplo.element.js'),
  )
  copyFileSync(join(root, 'demo-data/sailings.csv'), join(folder, 'public/sailings.csv'))
  writeFileSync(join(folder, 'index.md'), HOME)
  writeFileSync(
    join(folder, 'try.md'),
    '---\naside: false\n---\n\n# Try it\n\nWrite a description, or choose the words of its sentence; each follows the other, and the chart follows both. The editor completes options and phrases, and says what is wrong where it is. Drop in a CSV of your own. The address holds what you wrote, up to 32 kB.\n\n<ChartTrial />\n',
  )
  const pages = [
    ...readdirSync(docs).filter(name => name.endsWith('.md')),
    ...readdirSync(join(docs, 'recipes')).map(name => `recipes/${name}`),
  ].filter(page => !only || only.includes(page.replace(/\.md$/, '')))
  for (const page of pages) {
    const text = readFileSync(join(docs, page), 'utf8')
    writeFileSync(join(folder, page), await withCharts(text, page, root, charts))
    // Pictures that a page shows of its own.
    for (const [, picture] of text.matchAll(/!\[[^\]]*\]\((screenshots\/[^)]+)\)/g)) {
      mkdirSync(join(folder, 'screenshots'), { recursive: true })
      copyFileSync(join(docs, picture), join(folder, picture))
    }
  }
  writeFileSync(join(folder, 'recipes/index.md'), recipesPage(folder, pages))
  writeFileSync(join(folder, 'options.md'), await optionsPage(root, charts))
  writeFileSync(join(folder, 'words.md'), wordsPage())
  writeFileSync(join(folder, 'commands.md'), commandsPage(root))
  writeFileSync(join(folder, 'codes.md'), codesPage(root))
}

const recipesPage = (folder, pages) =>
  `# Recipes\n\nOne page for each task.\n\n${pages
    .filter(page => page.startsWith('recipes/'))
    .map(page => {
      const text = readFileSync(join(folder, page), 'utf8')
      const [, title, first] = /^# (.+)\n\n(.+)/.exec(text) ?? []
      return `- [${title}](/${page.replace(/\.md$/, '')}): ${first.split(/(?<=\.) /)[0]}`
    })
    .join('\n')}\n`

/** A page with the chart of each snippet under its code. */
async function withCharts(text, page, root, charts) {
  const pieces = text.split(/(^(?:<!-- page -->\n)?```ts\n[\s\S]*?^```\n)/m)
  const out = []
  let number = 0
  for (const piece of pieces) {
    const code = /```ts\n([\s\S]*?)```/.exec(piece)?.[1]
    if (!code || !/^(<!-- page -->\n)?```ts/.test(piece)) {
      out.push(piece)
      continue
    }
    out.push(piece.replace('<!-- page -->\n', ''))
    const name = `${page.replace(/\W+/g, '-').replace(/-md$/, '')}-${++number}`
    for (const [i, { file, svg, alt }] of (await chartsOf(code, root)).entries()) {
      const own = `${name}-${i}`
      writeFileSync(join(charts, `${own}.svg`), svg)
      if (file) writeFileSync(join(charts, `${own}.chart.json`), JSON.stringify(file))
      const picture = `<img src="/charts/${own}.svg" alt="${alt}" loading="lazy">`
      out.push(
        `\n<div class="drawn" v-pre>${file ? `<dapplo-chart src="/charts/${own}.chart.json">${picture}</dapplo-chart>` : picture}</div>\n`,
      )
    }
  }
  return out.join('')
}
