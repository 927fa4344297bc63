/** JSON messages, one a line. */
export async function* messages<T>(answer: Response): AsyncGenerator<T> {
  if (!answer.ok || !answer.body) throw new Error(`The server answered ${answer.status}.`)
  const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader()
  let rest = ''
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    const lines = (rest + piece.value).split('\n')
    rest = lines.pop() ?? ''
    for (const line of lines) if (line) yield JSON.parse(line) as T
  }
}
