import type { DocumentHead } from '../api/client'

/** Documents of one kind as choices of a list. */
export const DocumentOptions = ({ of }: { of: DocumentHead[] | undefined }) =>
  of?.map((head) => (
    <option key={head.id} value={head.id}>
      {head.name || 'without a name'}
    </option>
  ))
