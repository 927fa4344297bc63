/** A length on a raster, mm. */
export const snapped = (value: number, step: number) => Math.round(value / step) * step
