import { StreamLanguage, type StringStream } from '@codemirror/language'

interface Where {
  /** Within which kind of tag the text stands. */
  tag: '' | 'output' | 'logic'
  /** Whether a word has been read on this line yet. */
  begun: boolean
}

/** G-code with Liquid around it: commands, letters, numbers, comments, tags. */
export const gcodeLiquid = StreamLanguage.define<Where>({
  startState: () => ({ tag: '', begun: false }),
  token(stream, where) {
    if (stream.sol()) where.begun = false
    if (where.tag) return inTag(stream, where)
    if (stream.eatSpace()) return null
    if (stream.match(/^\{\{-?/)) return enter(where, 'output')
    if (stream.match(/^\{%-?/)) return enter(where, 'logic')
    if (stream.peek() === ';') {
      stream.match(/^;(?:(?!\{[{%]).)*/)
      return 'comment'
    }
    if (stream.match(/^\([^)]*\)?/)) return 'comment'
    if (!where.begun && stream.match(/^[A-Za-z][A-Za-z0-9_.]*/)) {
      where.begun = true
      return 'keyword'
    }
    if (stream.match(/^[A-Za-z_]+=?/)) return 'propertyName'
    if (stream.match(/^[-+]?\d*\.?\d+/)) return 'number'
    if (stream.match(/^"[^"]*"?/)) return 'string'
    stream.next()
    return null
  },
})

function enter(where: Where, tag: 'output' | 'logic') {
  where.tag = tag
  where.begun = true
  return 'brace'
}

function inTag(stream: StringStream, where: Where) {
  if (stream.eatSpace()) return null
  if (stream.match(where.tag === 'output' ? /^-?\}\}/ : /^-?%\}/)) {
    where.tag = ''
    return 'brace'
  }
  if (stream.match(/^'[^']*'?|^"[^"]*"?/)) return 'string'
  if (stream.match(/^\d*\.?\d+/)) return 'number'
  if (
    stream.match(
      /^(if|elsif|else|endif|unless|endunless|for|endfor|in|case|when|endcase|assign|and|or|contains|comment|endcomment|raw|endraw)\b/,
    )
  )
    return 'controlKeyword'
  if (stream.match(/^[\w.]+/)) return 'variableName'
  stream.next()
  return 'operator'
}
