import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/** The site of the documentation. `folder`: where its pages lie; `whole`: whether all of them do. */
export function configOf(folder, whole) {
  const titled = (dir, name) => ({
    text: /^# (.+)$/m.exec(readFileSync(join(folder, dir, name), 'utf8'))?.[1] ?? name,
    link: `/${dir}${dir ? '/' : ''}${name.replace(/\.md$/, '')}`,
  })
  const those = names => names.filter(name => existsSync(join(folder, name))).map(name => titled('', name))
  const recipes = readdirSync(join(folder, 'recipes'))
    .filter(name => name !== 'index.md')
    .sort()
  return {
    title: 'Dapplo',
    description: 'Charts for TypeScript programs, described in plain words',
    lang: 'en',
    head: [['link', { rel: 'icon', href: 'data:,' }]],
    lastUpdated: false,
    cleanUrls: false,
    ignoreDeadLinks: !whole,
    vue: { template: { compilerOptions: { isCustomElement: tag => tag.startsWith('dapplo-') } } },
    markdown: {
      // Braces in code are no templates.
      config: md => {
        md.renderer.rules.code_inline = (tokens, i) =>
          `<code v-pre>${md.utils.escapeHtml(tokens[i].content)}</code>`
      },
    },
    vite: { logLevel: 'error', build: { chunkSizeWarningLimit: 4000 } },
    themeConfig: {
      search: { provider: 'local' },
      outline: { level: [2, 3] },
      nav: [
        { text: 'Guide', link: '/phrases' },
        { text: 'Recipes', link: '/recipes/' },
        { text: 'Reference', link: '/options' },
        { text: 'Try it', link: '/try' },
      ],
      sidebar: [
        {
          text: 'Guide',
          items: those([
            'start.md',
            'phrases.md',
            'description.md',
            'kinds.md',
            'exploring.md',
            'change.md',
            'places.md',
            'pages.md',
            'far.md',
            'compose.md',
            'browsers.md',
            'speed.md',
          ]),
        },
        { text: 'Recipes', collapsed: true, items: recipes.map(name => titled('recipes', name)) },
        {
          text: 'Reference',
          items: those(['options.md', 'words.md', 'commands.md', 'codes.md', 'api.md']),
        },
      ],
    },
  }
}
