/** Names of files that are taken as parts. */
export const meshNames = ['.stl', '.3mf', '.obj', '.amf']

export const isMeshName = (name: string) => meshNames.some((end) => name.toLowerCase().endsWith(end))
