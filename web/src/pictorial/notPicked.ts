/** For what is drawn and cannot be picked: a ray never meets it. */
export const notPicked = () => undefined
