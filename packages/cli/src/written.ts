/** What writes charts as words, which needs to know how wide characters are: loaded only when it is asked for. */
export { toMail, toText } from '@dapplo/node'
