// Makes a small site that shows one chart in five ways under a strict policy: as a picture without scripts, as a page of
// its own in a frame that sizes itself, as an element with an address, as an element with its data inside, and as what an
// oEmbed consumer would be given. Usage: node examples/site/make.mjs <folder>
import { copyFileSync, mkdirSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { embedElement, embedPage, embedSnippet, openChart } from '@dapplo/node'
import { rolldown } from 'rolldown'

const at = path => fileURLToPath(new URL(path, import.meta.url))

/** What the site allows: its own scripts, styles, data and frames, pictures as data, and nothing inline or evaluated. */
export const POLICY =
  "default-src 'none'; script-src 'self'; style-src 'self'; connect-src 'self'; font-src 'self'; frame-src 'self'; img-src data:"

export async function makeSite(folder) {
  mkdirSync(folder, { recursive: true })
  const demo = name => at(`../../demo-data/${name}`)
  const months = {
    ...openChart(demo('passengers.chart.json')).chart.toJSON(),
    id: 'months',
    draw: 'bar',
    arrange: 'stack',
    x: 'month of departed',
    subtitle: undefined,
    title: 'Passengers, month by month',
  }
  const description = { tables: { sailings: { url: 'sailings.csv', key: 'id' } }, ...months }
  const file = join(folder, 'months.chart.json')
  copyFileSync(demo('sailings.csv'), join(folder, 'sailings.csv'))
  writeFileSync(file, JSON.stringify(description, null, 2))
  const { chart, tables } = openChart(file)
  const frame = { width: 520, height: 320 }
  writeFileSync(join(folder, 'page.html'), embedPage(chart, { frame, tables }))
  const require = createRequire(import.meta.url)
  for (const weight of [400, 600])
    copyFileSync(
      require.resolve(`@fontsource/inter/files/inter-latin-${weight}-normal.woff2`),
      join(folder, `inter-${weight}.woff2`),
    )
  writeFileSync(join(folder, 'site.css'), STYLE)
  writeFileSync(
    join(folder, 'entry.mjs'),
    "import { defineElement, fitFrames } from 'dapplo'\ndefineElement()\nfitFrames()\n",
  )
  const bundle = await rolldown({
    input: join(folder, 'entry.mjs'),
    platform: 'browser',
    resolve: { modules: [at('../../node_modules')] },
  })
  await bundle.write({ file: join(folder, 'site.js'), format: 'es', codeSplitting: false, minify: true })
  const aFrame =
    '<iframe src="page.html" title="Passengers, month by month" sandbox="allow-scripts" loading="lazy"></iframe>'
  const oEmbed = { version: '1.0', type: 'rich', title: chart.description.title, ...frame, html: aFrame }
  writeFileSync(join(folder, 'oembed.json'), JSON.stringify(oEmbed, null, 2))
  const ways = [
    ['A picture, without scripts', embedSnippet(chart, frame).replace(' style="margin:0"', '')],
    ['A page of its own, in a frame', aFrame],
    ['An element with an address', '<dapplo-chart src="months.chart.json"></dapplo-chart>'],
    ['An element with its data inside', embedElement(chart.with({ id: 'inside' }), { frame, tables })],
    ['What an oEmbed consumer is given', oEmbed.html],
  ]
  writeFileSync(
    join(folder, 'index.html'),
    `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${POLICY}">
<title>Five ways into a page</title>
<link rel="icon" href="data:,">
<link rel="stylesheet" href="site.css">
<script type="module" src="site.js"></script>
</head>
<body>
<h1>Five ways into a page</h1>
<main>
${ways.map(([name, html]) => `<section><h2>${name}</h2>\n${html}</section>`).join('\n')}
</main>
</body>
</html>
`,
  )
}

const STYLE = `@font-face{font-family:Inter;font-weight:400;src:url(inter-400.woff2)}
@font-face{font-family:Inter;font-weight:600;src:url(inter-600.woff2)}
body{margin:0;padding:16px 24px;background:#fdfcf9;color:#1c2328;font:14px/1.4 Inter,system-ui,sans-serif}
main{display:grid;grid-template-columns:repeat(auto-fit,minmax(min(520px,100%),1fr));gap:16px}
h1{font-size:22px;margin:0 0 12px}h2{font-size:14px;margin:0}figure{margin:0}
section>figure>svg,dapplo-chart>svg{display:block;width:100%;height:auto}
dapplo-chart{display:block;height:320px}iframe{width:100%;height:320px;border:0}
@media print{iframe{break-inside:avoid}}
`

if (process.argv[1] && dirname(process.argv[1]) === at('.').replace(/\/$/, '')) {
  const folder = process.argv[2] ?? 'site'
  await makeSite(folder)
  console.log(join(folder, 'index.html'))
}
