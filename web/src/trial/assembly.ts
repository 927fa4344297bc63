/** A word that no assembly has yet. */
export const newAssembly = () => crypto.getRandomValues(new Uint32Array(1))[0]!.toString(36)
