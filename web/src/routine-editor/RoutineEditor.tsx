import { autocompletion } from '@codemirror/autocomplete'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { lintGutter, setDiagnostics } from '@codemirror/lint'
import { tags } from '@lezer/highlight'
import CodeMirror, { EditorView, type ReactCodeMirrorRef } from '@uiw/react-codemirror'
import { useEffect, useMemo, useRef, useState } from 'react'
import { createStore } from 'zustand'
import type { Finding, FlavourAnswer } from '../api/client'
import { complete, type Known } from './completions'
import { gcodeLiquid } from './gcodeLiquid'

const inks = syntaxHighlighting(
  HighlightStyle.define([
    { tag: [tags.variableName, tags.brace, tags.operator], color: 'var(--madder)' },
    { tag: [tags.controlKeyword], color: 'var(--madder)', fontWeight: '600' },
    { tag: tags.keyword, color: 'var(--ink)', fontWeight: '600' },
    { tag: tags.propertyName, color: 'var(--ink)' },
    { tag: [tags.number, tags.string], color: 'var(--moss)' },
    { tag: tags.comment, color: 'var(--ink-2)' },
  ]),
)

const editorSeverity = { stop: 'error', caution: 'warning', note: 'info' } as const
const nothing = {}
const none: Known['macros'] = []

interface RoutineEditorProps {
  label: string
  value: string
  problems: Finding[]
  /** What names stand for, in words. */
  names?: Record<string, string>
  /** What they stand for at this routine's moment. */
  values?: Record<string, unknown>
  flavour?: FlavourAnswer | undefined
  macros?: Known['macros']
  /** The line of the common cursor, counted from 1. */
  cursor?: number
  onCursor?: (line: number) => void
  onScroll?: (top: number) => void
  /** Where it is to be scrolled to, when something beside it was scrolled. */
  scrolledTo?: number
  onChange: (text: string) => void
}

/** An editor for a routine: Liquid around G-code, commands and names completed, problems marked at their line. */
export default function RoutineEditor(props: RoutineEditorProps) {
  const {
    label,
    value,
    problems,
    names = nothing,
    values = nothing,
    flavour,
    macros = none,
    cursor,
    onCursor,
    onScroll,
    scrolledTo,
    onChange,
  } = props
  const editor = useRef<ReactCodeMirrorRef>(null)
  // the editor is set up once; what it completes changes with every run
  const [known] = useState(() => createStore<Known>(() => ({ names, values, flavour, macros })))
  useEffect(() => known.setState({ names, values, flavour, macros }), [known, names, values, flavour, macros])
  const extensions = useMemo(
    () => [
      gcodeLiquid,
      inks,
      lintGutter(),
      autocompletion({ override: [(context) => complete(context, known.getState())] }),
      EditorView.contentAttributes.of({ 'aria-label': label }),
    ],
    [label, known],
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
          return {
            from: at.from,
            to: at.to,
            message,
            severity: editorSeverity[severity],
          }
        }),
      ),
    )
  }, [problems])

  useEffect(() => {
    const view = editor.current?.view
    if (!view || !cursor || cursor > view.state.doc.lines) return
    const { head } = view.state.selection.main
    if (view.state.doc.lineAt(head).number !== cursor)
      view.dispatch({ selection: { anchor: view.state.doc.line(cursor).from }, scrollIntoView: true })
  }, [cursor])

  useEffect(() => {
    const scroller = editor.current?.view?.scrollDOM
    if (scroller && scrolledTo !== undefined && Math.abs(scroller.scrollTop - scrolledTo) > 1) scroller.scrollTo({ top: scrolledTo })
  }, [scrolledTo])

  return (
    <CodeMirror
      ref={editor}
      className="routine-editor"
      value={value}
      height="100%"
      theme="none"
      extensions={extensions}
      onChange={onChange}
      onUpdate={(update) => {
        if (update.selectionSet && update.view.hasFocus) onCursor?.(update.state.doc.lineAt(update.state.selection.main.head).number)
      }}
      onCreateEditor={(view) => {
        // what scrolls is reached by the keyboard, too
        view.scrollDOM.tabIndex = 0
        view.scrollDOM.addEventListener('scroll', () => onScroll?.(view.scrollDOM.scrollTop))
        if (cursor && cursor <= view.state.doc.lines)
          view.dispatch({ selection: { anchor: view.state.doc.line(cursor).from }, scrollIntoView: true })
      }}
    />
  )
}
