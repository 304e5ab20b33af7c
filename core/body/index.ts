/** The body laid flat on a sheet. */
export { BODY_ZONES, bodyMesh, bodyOutline, bodyZoneAt, onSheet, sheetOf } from './body.ts'
