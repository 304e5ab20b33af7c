/** What goes home: what to keep off and until when, messages, products. */
export {
  CARE_CONSTANTS,
  carePlan,
  type CarePlan,
  type Clearance,
  exfoliatesBy,
  longNicks,
} from './clearances.ts'
export { careText } from './careWords.ts'
export {
  effectWords,
  type ProductLook,
  RANK_CONSTANTS,
  type RankedProduct,
  rankProducts,
} from './rankProducts.ts'
export { sittingCare } from './sittingCare.ts'
export { type MessageDraft, type MessageKind, MESSAGE_KINDS, messagesFor } from './messages.ts'
export {
  clashes,
  FACT_WORDS,
  type Product,
  PRODUCT_FACTS,
  type ProductFact,
  USE_WORDS,
  USUAL_PRODUCTS,
} from './products.ts'
