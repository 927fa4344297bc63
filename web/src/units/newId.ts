/** An id that is given nowhere else; no secret. */
export const newId = () => [...crypto.getRandomValues(new Uint8Array(6))].map((byte) => byte.toString(36).padStart(2, '0')).join('')
