/** Every figure of every model, by area. */
export { checkFigure, constantOf, CONSTANT_REGISTER, figuresOf, FIXED_FIGURES } from './register.ts'
