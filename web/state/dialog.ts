/** Single-letter keys belong to the page only while no dialog lies over it. */
export const noDialog = () => document.querySelector('[role="dialog"]') === null
