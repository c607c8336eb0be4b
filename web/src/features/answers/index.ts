/** What other features may show of this one. */
export { AnswersPart } from './AnswersPart'
export { answersQuery } from './answerQueries'
