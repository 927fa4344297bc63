/** The command that a line of a routine begins with, and the names within its tags. */
export function wordsOf(line: string): { command: string | undefined; names: string[] } {
  const code = line.replace(/;.*$/, '')
  const command = /^\s*(?:N\d+\s+)?([A-Za-z]\w*)/.exec(code.replace(/\{[{%].*?[%}]\}/g, ' '))?.[1]?.toUpperCase()
  const tags = code.match(/\{[{%].*?[%}]\}/g) ?? []
  // what stands in quotes is no name
  const names = tags.flatMap((tag) => tag.replace(/(["']).*?\1/g, '').match(/[a-z_]\w*(?:\.\w+)+/gi) ?? [])
  return { command, names: [...new Set(names)] }
}
