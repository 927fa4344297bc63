import { describe, expect, it } from 'vitest'
import { questions } from './questions'

describe('the questions of the interview', () => {
  it('ask for every fact once', () => {
    const asked = questions.flatMap(({ pointers }) => pointers)
    expect(new Set(asked).size).toBe(asked.length)
    expect(new Set(questions.map(({ id }) => id)).size).toBe(questions.length)
  })
  it('end with a question mark, and say where to look in whole sentences', () => {
    for (const { title, where, pointers } of questions) {
      expect(title).toMatch(/\?$/)
      expect(where).toMatch(/[.?]$/)
      expect(pointers.length).toBeGreaterThan(0)
    }
  })
})
