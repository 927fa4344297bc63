import { autocompletion, type CompletionContext } from '@codemirror/autocomplete'
import { liquid } from '@codemirror/lang-liquid'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, setDiagnostics } from '@codemirror/lint'
import { tags } from '@lezer/highlight'
import { useQuery } from '@tanstack/react-query'
import CodeMirror, { EditorView, type ReactCodeMirrorRef } from '@uiw/react-codemirror'
import { useEffect, useMemo, useRef } from 'react'
import { api, dataOf, type Finding } from '../api/client'

const inks = syntaxHighlighting(
  HighlightStyle.define([
    { tag: [tags.variableName, tags.propertyName, tags.brace, tags.processingInstruction], color: 'var(--madder)' },
    { tag: [tags.keyword, tags.controlKeyword, tags.operatorKeyword, tags.modifier], color: 'var(--madder)', fontWeight: '600' },
    { tag: [tags.number, tags.string, tags.bool], color: 'var(--moss)' },
    { tag: tags.comment, color: 'var(--ink-2)' },
  ]),
)

interface RoutineEditorProps {
  label: string
  value: string
  problems: Finding[]
  onChange: (text: string) => void
}

/** An editor for a routine: Liquid around G-code, names completed, problems marked at their line. */
export default function RoutineEditor({ label, value, problems, onChange }: RoutineEditorProps) {
  const editor = useRef<ReactCodeMirrorRef>(null)
  const { data: names } = useQuery({
    queryKey: ['routine-names'],
    staleTime: Infinity,
    queryFn: async () => dataOf(await api.GET('/api/routine-names')),
  })
  const extensions = useMemo(
    () => [
      liquid(),
      inks,
      lintGutter(),
      autocompletion({ override: [(context) => completeNames(context, names ?? {})] }),
      EditorView.contentAttributes.of({ 'aria-label': label }),
      EditorView.lineWrapping,
    ],
    [label, names],
  )

  useEffect(() => {
    const view = editor.current?.view
    if (!view) return
    const { doc } = view.state
    view.dispatch(
      setDiagnostics(
        view.state,
        problems.map(({ line, message, severity }) => {
          const at = doc.line(Math.min(Math.max(line ?? 1, 1), doc.lines))
          return { from: at.from, to: at.to, message, severity: severity === 'stop' ? 'error' : 'warning' }
        }),
      ),
    )
  }, [problems])

  return (
    <CodeMirror
      ref={editor}
      className="routine-editor"
      value={value}
      height="100%"
      theme="none"
      extensions={extensions}
      onChange={onChange}
    />
  )
}

function completeNames(context: CompletionContext, names: Record<string, string>) {
  const inside = context.matchBefore(/\{[{%][^}]*$/)
  const word = context.matchBefore(/[\w.]*/)
  if (!inside || !word || (word.from === word.to && !context.explicit)) return null
  return { from: word.from, options: Object.entries(names).map(([name, about]) => ({ label: name, detail: about, type: 'variable' })) }
}
