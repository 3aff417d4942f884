import type { Theme } from '@dapplo/core'

const CSS = `
:host { display: block; color: var(--text); font: 14px/1.7 var(--font); }
* { box-sizing: border-box; }
.composer { position: relative; background: var(--background); padding: 12px 16px 16px; }
.sentence { margin: 0 0 8px; font-size: 15px; overflow-wrap: anywhere; }
button { font: inherit; color: inherit; cursor: pointer; border-radius: 3px; }
.choice { display: inline; padding: 2px 1px; margin: 0; border: 0; background: none; font-weight: 600; text-align: start;
  line-height: inherit; min-height: 24px; border-bottom: 2px solid var(--strong); border-radius: 0; overflow-wrap: anywhere; }
.choice:hover, .choice[aria-expanded=true] { border-bottom-color: var(--text); background: var(--stripe); }
.and { padding: 1px 8px; border: 1px dashed var(--muted); background: none; color: var(--muted); min-height: 24px; }
:focus-visible { outline: 2px solid var(--text); outline-offset: 2px; }
.tools { display: flex; flex-wrap: wrap; gap: 6px; margin: 0 0 10px; }
.tools button, .set, .mend, .beginning { border: 1px solid var(--muted); background: var(--surface); padding: 3px 10px; min-height: 28px; }
.tools button:disabled { color: var(--muted); border-color: var(--hairline); cursor: default; }
.tools .done { margin-inline-start: auto; font-weight: 600; }
.chart { isolation: isolate; }
.findings { margin: 8px 0 0; padding: 0; list-style: none; font-size: 13px; color: var(--muted); }
.findings li { margin: 4px 0; }
.mend { margin-inline-start: 6px; color: var(--text); padding: 1px 8px; }
.beginnings h2 { font-size: 15px; margin: 0 0 8px; font-weight: 600; }
.cards { display: grid; grid-template-columns: repeat(auto-fit, minmax(220px, 1fr)); gap: 12px; }
.beginning { text-align: start; padding: 10px; display: block; line-height: 1.4; font-size: 13px; }
.beginning:hover { border-color: var(--text); }
.beginning small { display: block; color: var(--muted); font-size: 12px; margin-top: 4px; }
canvas { display: block; width: 100%; margin: 0 0 8px; }
.beginning canvas { height: 200px; }
.preview canvas { height: 150px; }
.menu { position: absolute; z-index: 5; background: var(--surface); border: 1px solid var(--strong); border-radius: 3px;
  padding: 8px; width: min(560px, calc(100% - 16px)); display: grid; grid-template-columns: minmax(0, 1fr); gap: 8px; font-size: 13px; line-height: 1.4; }
.menu.seen { grid-template-columns: minmax(0, 1fr) 220px; }
.menu .parts { min-width: 0; display: grid; gap: 8px; align-content: start; }
.menu .preview { align-self: start; position: sticky; top: 0; }
.options { list-style: none; margin: 0; padding: 0; max-height: 300px; overflow: auto; }
.options [role=option] { padding: 5px 8px; min-height: 26px; cursor: pointer; border-radius: 2px; overflow-wrap: anywhere; }
.options [aria-selected=true] { background: var(--stripe); box-shadow: inset 2px 0 0 var(--text); }
.swatch { display: inline-block; width: 22px; height: 12px; margin-inline-end: 8px; border-radius: 2px; vertical-align: -1px; forced-color-adjust: none; }
.anchor { position: absolute; width: 1px; height: 1px; pointer-events: none; }
.options .now { font-weight: 600; }
.options .heading { padding: 6px 8px 2px; color: var(--muted); font-size: 12px; }
.writing { display: flex; gap: 6px; align-items: center; flex-wrap: wrap; }
.writing label { flex: 1 1 auto; display: flex; gap: 6px; align-items: center; }
input { font: inherit; color: inherit; background: var(--background); border: 1px solid var(--muted); border-radius: 3px; padding: 3px 6px; min-width: 0; flex: 1; min-height: 28px; }
.find { width: 100%; }
details { margin-top: 12px; font-size: 13px; color: var(--muted); }
select { font: inherit; color: inherit; background: var(--background); border: 1px solid var(--muted); border-radius: 3px; min-height: 24px; }
.chart.grabs, .chart.grabs * { cursor: grab; }
summary { cursor: pointer; min-height: 24px; }
details ul { margin: 6px 0; padding-inline-start: 18px; max-height: 220px; overflow: auto; overflow-wrap: anywhere; }
.rows { overflow: auto; }
table { border-collapse: collapse; font-variant-numeric: tabular-nums; }
caption { text-align: start; padding: 4px 0; }
th, td { text-align: start; padding: 2px 14px 2px 0; border-bottom: 1px solid var(--hairline); white-space: nowrap; }
.said { position: absolute; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
.menu.narrow { grid-template-columns: minmax(0, 1fr); }
.menu.narrow .preview { position: static; order: -1; }
.menu.narrow .preview canvas { height: 130px; width: 220px; }
.menu.narrow .options { max-height: 200px; }
@media (forced-colors: active) { .choice { border-bottom-color: ButtonText; } .options [aria-selected=true] { outline: 1px solid Highlight; } }
`

let shared: CSSStyleSheet | undefined

/** The looks of the composer: a sheet that is made by a program, so that a strict policy allows it. */
export function dress(root: ShadowRoot): void {
  if (!shared) {
    shared = new CSSStyleSheet()
    shared.replaceSync(CSS)
  }
  root.adoptedStyleSheets = [shared]
}

/** The theme's colours for what stands around the chart. */
export function colour(host: HTMLElement, theme: Theme): void {
  for (const token of [
    'text',
    'muted',
    'surface',
    'background',
    'strong',
    'hairline',
    'stripe',
    'font',
  ] as const)
    host.style.setProperty(`--${token}`, theme[token])
}
