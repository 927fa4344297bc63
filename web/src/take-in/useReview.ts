import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { sentenceOf } from '../api/client'
import type { DroppedFile } from '../exchange/dropped'
import { review } from '../exchange/packets'

/** The review of what was dropped; it is looked at anew after something was taken. */
export function useReview(files: readonly DroppedFile[], drops: number) {
  const [round, setRound] = useState(0)
  const { data, error, isFetching } = useQuery({
    queryKey: ['review', drops, round],
    enabled: files.length > 0,
    retry: false,
    gcTime: 0,
    staleTime: Infinity,
    ...(round > 0 && { placeholderData: keepPreviousData }),
    queryFn: ({ signal }) => review(files, signal),
  })
  return { review: data, error: error ? sentenceOf(error) : undefined, looking: isFetching, again: () => setRound(round + 1) }
}
