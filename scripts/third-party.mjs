/** How a bundle names what it holds of others: all licences with their texts in a file beside it. */
export const thirdParty = (root, file) => ({
  cwd: root,
  thirdParty: {
    output: {
      file,
      template: all =>
        `What these files hold of others, with their licences.\n\n${all
          .filter(({ name }) => !/^(@dapplo\/|dapplo$)/.test(name))
          .sort((a, b) => a.name.localeCompare(b.name, 'en'))
          .map(({ name, version, license, licenseText }) => {
            if (!licenseText) throw new Error(`${name} has no text of its licence`)
            return `${name} ${version} (${license})\n\n${licenseText.trim()}\n`
          })
          .join('\n----\n\n')}`,
    },
  },
})
