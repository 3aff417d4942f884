/** A text without the byte-order mark that some programs begin files with. */
export const withoutMark = (text: string): string => (text.charCodeAt(0) === 0xfeff ? text.slice(1) : text)
