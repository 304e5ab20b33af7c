/** An error with a code for machines and a sentence a person can act on. */
export class DomainError extends Error {
  readonly code: string

  constructor(code: string, sentence: string) {
    super(sentence)
    this.name = 'DomainError'
    this.code = code
  }
}
