import { DapploError } from '@dapplo/node'
import type { Command } from 'commander'
import { say } from '../say.ts'

/** Words after a flag that a shell can offer. */
const VALUES: Record<string, readonly string[]> = {
  '--draw': ['line', 'area', 'bar', 'scatter', 'pie', 'heatmap', 'reference', 'trend', 'text'],
  '--arrange': ['side', 'stack', 'share', 'overlap'],
  '--between': ['direct', 'smooth', 'hold'],
  '--order': ['given', 'name', 'ranked'],
  '--theme': ['day', 'night'],
  '--fonts': ['named', 'embedded', 'outlines'],
  '--as': ['page', 'snippet', 'element'],
  '--legend': ['auto', 'ends', 'top', 'right', 'bottom', 'left'],
}

export function addCompletion(program: Command): void {
  program
    .command('completion')
    .summary('print a script that completes dapplo in a shell')
    .description('Prints a script by which a shell completes commands, flags and their values.')
    .argument('<shell>', 'bash, zsh or fish')
    .addHelpText(
      'after',
      '\nExamples:\n  source <(dapplo completion bash)\n  dapplo completion fish > ~/.config/fish/completions/dapplo.fish',
    )
    .action((shell: string) => {
      const commands = program.commands.filter(command => command.name() !== 'completion')
      const flags = (command: Command) =>
        command.options.map(option => option.long).filter(flag => flag !== undefined)
      if (shell === 'fish') {
        for (const command of commands) {
          const words = command.summary().replace(/'/g, '')
          say(`complete -c dapplo -n __fish_use_subcommand -a ${command.name()} -d '${words}'\n`)
          for (const flag of flags(command)) {
            const values = VALUES[flag] ? ` -x -a '${VALUES[flag].join(' ')}'` : ''
            say(
              `complete -c dapplo -n '__fish_seen_subcommand_from ${command.name()}' -l ${flag.slice(2)}${values}\n`,
            )
          }
        }
        return
      }
      if (shell !== 'bash' && shell !== 'zsh')
        throw new DapploError(
          'bad-flag',
          `There is no completion for "${shell}"`,
          'shell',
          'Name bash, zsh or fish.',
        )
      const cases = commands
        .map(command => `    ${command.name()}) words="${flags(command).join(' ')}" ;;`)
        .join('\n')
      const values = Object.entries(VALUES)
        .map(
          ([flag, list]) => `    ${flag}) COMPREPLY=($(compgen -W "${list.join(' ')}" -- "$now")); return ;;`,
        )
        .join('\n')
      say(`${shell === 'zsh' ? 'autoload -U +X bashcompinit && bashcompinit\n' : ''}_dapplo() {
  local now="\${COMP_WORDS[COMP_CWORD]}" before="\${COMP_WORDS[COMP_CWORD-1]}" words=""
  case "$before" in
${values}
  esac
  if [ "$COMP_CWORD" -eq 1 ]; then words="${commands.map(command => command.name()).join(' ')}"; fi
  case "\${COMP_WORDS[1]}" in
${cases}
  esac
  case "$now" in
    -*) COMPREPLY=($(compgen -W "$words" -- "$now")) ;;
    *) if [ "$COMP_CWORD" -eq 1 ]; then COMPREPLY=($(compgen -W "$words" -- "$now")); else COMPREPLY=($(compgen -f -- "$now")); fi ;;
  esac
}
complete -o filenames -F _dapplo dapplo
`)
    })
}
