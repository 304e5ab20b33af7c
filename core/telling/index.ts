/** Directions as they are told: words, landmarks, and the clock of the picture that is shown. */
export { pictureAngle, pictureHour } from './picture.ts'
export { landmarkAhead, tellWay, type ToldWay, wayWords } from './way.ts'
