import { keepPreviousData, useQuery } from '@tanstack/react-query'

/**
 * The server's answer to a question, asked anew whenever anything in the question is another; undefined until it is known, or for no
 * question.
 */
export function useAnswer<Q, A>(name: string, question: Q | undefined, ask: (question: Q, signal: AbortSignal) => Promise<A>) {
  return useQuery({
    queryKey: [name, JSON.stringify(question)],
    enabled: question !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: ({ signal }) => ask(question!, signal),
  })
}
